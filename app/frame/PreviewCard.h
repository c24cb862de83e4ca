#pragma once
// What a larger step on the plan would do, said before it is done: accepted as one edit, or dropped.

#include <QFrame>

#include <functional>

class QLabel;
class QPushButton;

namespace lintel {

class PreviewCard : public QFrame {
    Q_OBJECT
public:
    explicit PreviewCard(QWidget* parent);
    /// `accept` is called once, when it is accepted; an empty one shows the words with nothing to accept.
    void show(const QString& title, const QString& words, const QString& button, std::function<void()> accept);
    void accept();
    void drop();
    QString words() const;

Q_SIGNALS:
    void closed(); ///< accepted or dropped

private:
    void place();
    QLabel *heading, *text;
    QPushButton *go, *no;
    std::function<void()> doIt;
};

} // namespace lintel
