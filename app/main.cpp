#include "app/frame/MainWindow.h"

#include <QApplication>

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    QApplication::setApplicationName("lintel");
    QApplication::setApplicationVersion(LINTEL_VERSION);
    QApplication::setStyle("Fusion");
    lintel::MainWindow window;
    window.show();
    if (const QStringList files = app.arguments().mid(1); !files.isEmpty()) window.openFile(files.first());
    return app.exec();
}
