#include "app/issue/SendByMail.h"

#include <QProcess>
#include <QStandardPaths>

namespace lintel {
namespace {
QString mailProgram() { return QStandardPaths::findExecutable("xdg-email"); }
} // namespace

bool canSendByMail() { return !mailProgram().isEmpty(); }

bool sendByMail(const QString& subject, const QStringList& files) {
    const QString program = mailProgram();
    if (program.isEmpty()) return false;
    QStringList words{"--utf8", "--subject", subject};
    for (const QString& file : files) words << "--attach" << file;
    return QProcess::startDetached(program, words);
}

} // namespace lintel
