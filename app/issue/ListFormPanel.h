#pragma once
// The form of a list beside the sheet on which it stands: its columns, which are shown, in which order, under which
// headings; in which order its rows stand, and which together; its title; whether it is on sheets at all.

#include "app/frame/Session.h"
#include "core/lists/ListForms.h"

#include <QWidget>

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;

namespace lintel {

class ListFormPanel : public QWidget {
    Q_OBJECT
public:
    explicit ListFormPanel(Session& session, QWidget* parent = nullptr);
    void show(const std::string& list);
    const std::string& listShown() const { return key; }
    /// After every edit: what is shown may have changed.
    void refresh();
    QListWidget& columns() { return *items; }

Q_SIGNALS:
    void closed();

private:
    /// What stands in the fields, as a form.
    ListForm written() const;
    void enter(const QString& label);
    Session& session;
    std::string key;
    bool filling = false;
    QLabel* name;
    QLineEdit* title;
    QListWidget* items;
    QCheckBox* onSheets;
    QComboBox *sortBy, *groupBy;
    QCheckBox* backwards;
};

} // namespace lintel
