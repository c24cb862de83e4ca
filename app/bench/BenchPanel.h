#pragma once
// The bench: one-off sums beside whatever stage is shown, or without a project at all. The form is made from the fields
// of the sum; the answer follows each keystroke.

#include "app/frame/Session.h"
#include "core/bench/Bench.h"

#include <QWidget>

#include <map>

class QComboBox;
class QLabel;
class QPushButton;
class QScrollArea;
class QTextBrowser;

namespace lintel {

class BenchPanel : public QWidget {
    Q_OBJECT
public:
    explicit BenchPanel(Session& session, QWidget* parent = nullptr);
    void begin();   ///< puts the cursor into the first field
    void restyle(); ///< after a change of theme
    void offerKinds();
    void choose(const std::string& kind);
    /// Writes the answer as pages; says why not.
    std::optional<Error> print(const QString& file) const;
    const std::optional<BenchAnswer>& answer() const { return newest; }
    QString shownText() const; ///< of the answer, as text

Q_SIGNALS:
    void closed();

protected:
    void keyPressEvent(QKeyEvent*) override;
    void paintEvent(QPaintEvent*) override;

private:
    void rebuild();
    void work();
    void show(const Outcome<BenchAnswer>& outcome);
    void makeIt();
    std::string systemOfBoard() const;
    bool wanted(const BenchField& field);
    std::map<std::string, std::string>& entered(); ///< for the sum that is shown, by the book in force
    Session& session;
    const BenchKind* kind = nullptr;
    std::string offeredFor; ///< id of the rule book that the list of sums is for
    std::vector<BenchField> fields;
    std::map<std::string, std::map<std::string, std::string>>
        remembered; ///< by rule book and kind: what was typed, by field
    std::map<std::string, QWidget*> editors;
    bool more = false, building = false;
    QComboBox* kinds;
    QLabel* about;
    QScrollArea* scroll;
    QWidget* form = nullptr;
    QTextBrowser* result;
    QPushButton *makeButton, *printButton;
    std::optional<BenchAnswer> newest;
};

} // namespace lintel
