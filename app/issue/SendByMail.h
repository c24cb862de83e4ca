#pragma once
// Files to the desktop's mail program, through xdg-email, where there is one. Nothing is sent by itself: the program
// opens with a letter to which they are attached.

#include <QStringList>

namespace lintel {

bool canSendByMail();
/// False where the mail program cannot be started.
bool sendByMail(const QString& subject, const QStringList& files);

} // namespace lintel
