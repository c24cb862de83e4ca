#pragma once
// Checking beside any stage: what there is to look at, from the supply down or the worst first, ticked as seen; and the
// remarks with their answers. While it is open nothing of the design can be edited.

#include "app/frame/Session.h"
#include "core/review/Review.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPlainTextEdit;
class QPushButton;
class QTabWidget;
class QToolButton;
class QTreeWidget;
class QTreeWidgetItem;

namespace lintel {

class ReviewPanel : public QWidget {
    Q_OBJECT
public:
    explicit ReviewPanel(Session& session, QWidget* parent = nullptr);
    /// Shows what there is to look at as the project is now.
    void begin();
    void restyle();
    /// The remark that is typed next points at a place of a sheet, mm.
    void remarkOnSheet(const QString& sheetTitle, const QString& key, Point at, Ref composed);

Q_SIGNALS:
    void closed();
    void sheetWanted(const Remark& remark); ///< which points at it

private:
    enum class Show { All, NotYet, FellOff };
    void rebuild();
    void fillFigures();
    void markAll(const std::vector<ReviewItem>* before = nullptr);
    void lookAgain();
    void fillRemarks();
    void showItem();
    void showRemark();
    void step(int by);
    void tick();
    void tickGroup();
    std::vector<std::size_t> groupLeft() const;
    bool named();
    void say();
    void answer(bool close);
    void mark(QTreeWidgetItem* row, const ReviewItem& item) const;
    const ReviewItem* current() const;
    std::string reviewer() const;
    std::optional<RemarkId> currentRemark() const;
    QWidget* figuresPage();
    QWidget* remarksPage();

    Session& session;
    std::shared_ptr<const Solution> solved; ///< the solution that the figures are of
    std::vector<ReviewFigure> figures;
    std::vector<ReviewItem> items;
    std::string wanted; ///< which item stays current: its thing and figure
    Show shown = Show::All;
    /// Where the remark that is typed points at.
    struct Pin {
        QString sheet, key; ///< its title; by which it is known
        Point at;
        Ref composed; ///< the composed sheet that it is, where it is one
    };
    std::optional<Pin> pin;
    QLineEdit* name;
    QComboBox* walk;
    QToolButton *all, *notYet, *fellOff;
    QTreeWidget* tree;
    QLabel *title, *value, *was, *counted;
    QPushButton *tickButton, *remarkButton;
    QLineEdit* words;
    QTabWidget* pages;
    QListWidget* remarks;
    QPlainTextEdit* answerText;
    QPushButton *answerButton, *closeButton, *removeButton;
};

} // namespace lintel
