#pragma once
// Basis: the ground rules. A change is held back until it has shown what it would alter ("14 runs change; 2 new
// snags"); then it is taken or dropped.

#include "app/frame/Session.h"

#include <QScrollArea>
#include <QWidget>

class QFormLayout;
class QFrame;
class QLabel;
class QPushButton;
class QStackedWidget;
class QVBoxLayout;

namespace lintel {

class BasisStage : public QWidget {
    Q_OBJECT
public:
    explicit BasisStage(Session& session, QWidget* parent = nullptr);
    /// Takes over what is pending, as one edit.
    void accept();
    void drop();
    /// Something was entered that is not taken yet. Saving takes it; going elsewhere says so.
    bool pending() const { return !(draft == from); }
    QString previewText() const;
    /// The ground rules, or what the results rest on beside them.
    void showAssumptions(bool show);

private:
    void build();
    void fillForm();
    void sheetFields(QFormLayout* f);
    void cableFields(QFormLayout* f);
    void byKindFields(QFormLayout* form);
    void byKindField(QFormLayout* form, const QString& label, const char* object, const QString& placeholder,
                     const QString& tip, const QString& joiner, std::map<std::string, std::string> Basis::*member,
                     std::function<bool(const std::string&)> known, std::function<QString(const QString&)> refusal);
    void reload();
    void changed();
    QFormLayout* group(const QString& title, int column);
    template <class Get, class Set>
    void text(QFormLayout* f, const QString& label, const char* object, Get get, Set set);
    void numberField(QFormLayout* f, const QString& label, const char* object, const QString& unit, double lo,
                     double hi, int decimals, std::function<double(const Basis&)> get,
                     std::function<void(Basis&, double)> set);
    void ownValuesField(QFormLayout* f);
    struct LinesField {
        QString label;
        const char* object;
        QSize size;
        QString hint, tip;
        std::function<QString(const Basis&)> words;
        std::function<QString(Basis&, const QString&)> take; ///< gives the reason why not, else empty
    };
    void linesField(QFormLayout* f, const LinesField& field);
    void revisionsField(QFormLayout* f);
    void takeOffField(QFormLayout* f);
    void choiceField(QFormLayout* f, const QString& label, const char* object, QStringList words, QStringList titles,
                     std::function<QString(const Basis&)> get, std::function<void(Basis&, const QString&)> set);

    Session& session;
    Basis draft;
    Basis from; ///< what the draft began with
    /// What was changed elsewhere meanwhile comes in; what is pending here stays, field by field.
    void follow();
    void hideEvent(QHideEvent*) override;
    std::vector<std::function<void()>> loaders;
    std::vector<QVBoxLayout*> columns;
    QScrollArea* scroll = nullptr;
    QStackedWidget* pages = nullptr;
    QPushButton *showRules = nullptr, *showList = nullptr;
    std::string builtFor; ///< id of the rule book that the form offers choices of
    QFrame* preview;
    QLabel* previewLabel;
    bool loading = false;
};

} // namespace lintel
