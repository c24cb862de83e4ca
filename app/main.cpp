#include "app/frame/Application.h"
#include "app/frame/MainWindow.h"

#include <QLocale>

#include <clocale>

int main(int argc, char** argv) {
    lintel::Application app(argc, argv);
    std::setlocale(LC_NUMERIC, "C"); // what libraries write into files is for every desktop
    QLocale::setDefault(QLocale::c());
    QApplication::setApplicationName("lintel");
    QApplication::setApplicationVersion(LINTEL_VERSION);
    QApplication::setStyle("Fusion");
    lintel::MainWindow window;
    window.show();
    if (argc > 1)
        window.openFile(std::filesystem::path(argv[1])); // the bytes themselves: names of files need not be UTF-8
    return app.exec();
}
