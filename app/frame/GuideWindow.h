#pragma once
// The user guide in a window of its own, beside the work: its chapters, what the menus' keys are, and a search.

#include <QStringList>
#include <QWidget>

class QLabel;
class QLineEdit;
class QListWidget;
class QTextBrowser;

namespace lintel {

class GuideWindow : public QWidget {
    Q_OBJECT
public:
    /// `text`: the guide in Markdown.
    explicit GuideWindow(const QString& text, QWidget* parent = nullptr);
    /// Chapters, and the points within them that begin with a term of their own.
    QStringList headings() const;
    /// Brings that heading to the top; false: there is none.
    bool showAt(const QString& heading);
    QTextBrowser& text() { return *browser; }
    /// The guide as it ships; empty where it is not there.
    static QString shipped();

protected:
    void keyPressEvent(QKeyEvent*) override;

private:
    struct Place {
        QString heading;
        int position; ///< in the document
        bool chapter;
    };
    void findPlaces();
    void goTo(int position);
    void findNext();
    QListWidget* chapters;
    QTextBrowser* browser;
    QLineEdit* wanted;
    QLabel* said;
    std::vector<Place> places;
};

} // namespace lintel
