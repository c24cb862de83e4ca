// The command line and the window give the same answer for the same entry: some two hundred of them, typed into the
// bench of the window key by key, and handed to the program; right ones, other people's habits, and nonsense.

#include "app/bench/BenchPanel.h"
#include "tests/app/AppTest.h"

#include <QLineEdit>
#include <QPlainTextEdit>

#include <nlohmann/json.hpp>

using namespace lintel;

namespace {

struct Asked {
    const char *kind, *key;
    std::vector<const char*> texts;
    std::vector<std::pair<const char*, const char*>> beside{}; ///< other fields that are set first
};

const std::vector<const char*> loads{"16",       "16 A",    "16A",       "1.2 kVA", "1.2kVA", "1,200 VA",  "1 200 VA",
                                     "1200 W",   "2kW",     "7-1/2 hp",  "1/2 hp",  "7½ hp",  "10hp",      "10 HP",
                                     "0.02 MVA", "4,5 kVA", "1.2.3 kVA", "16 amps", "3 kvar", "-5 A",      "1e3 VA",
                                     "0",        "",        "16 Ω",      "sixteen", "16 A A", "12 000 VA", "30/2"};
const std::vector<const char*> lengths{"150",  "150 ft", "150ft",    "100 feet", "45.7 m",  "45,7 m", "6' 8\"",
                                       "6'8",  "12 in",  "1,200 ft", "1/2 ft",   "3000 mm", "-4 ft",  "0",
                                       "auto", "",       "long",     "150 ft 3", "12 yd",   "1e9 ft"};
const std::vector<const char*> temperatures{"30",   "30 °C", "86 °F", "86F", "40C",  "-10 °C",
                                            "25.5", "hot",   "",      "300", "30 K", "30 °C °C"};
const std::vector<const char*> shares{"3", "3 %", "3%", "2,5 %", "0.5", "120 %", "-1", "", "three", "3 A"};
const std::vector<const char*> amperes{"20", "20 A", "20A", "0.02 kA", "1,200 A", "auto", "", "20 V", "twenty", "-3"};
const std::vector<const char*> counts{"6", "6.0", "auto", "", "six", "-2", "1 000", "6 A"};

const std::vector<Asked> asked{
    {"conductor", "load", loads},
    {"ocpd", "noncontinuous", loads},
    {"demand", "total", loads, {{"of", "restaurant"}}},
    {"conductor", "length", lengths},
    {"conductor", "ambient", temperatures},
    {"ocpd", "ambient", temperatures},
    {"conductor", "continuous", shares},
    {"motors", "continuous", shares},
    {"motors", "other", amperes},
    {"motor", "nameplate", amperes},
    {"conductor", "conductors", counts},
    {"motors",
     "motors",
     {"1 × 25 hp", "2 x 30 hp wound", "7-1/2 hp", "3*1/2 hp", "25 kW", "1,000 hp", "2 × 30 hp 5", "two motors", "hp",
      "0 × 5 hp"}},
    {"conduit",
     "conductors",
     {"3 × 4/0", "4 x 250 kcmil", "4 3/0 AWG", "3 #12", "3 of 12", "4 × 12 XHHW-2", "12", "3 × 13", "-3 × 12",
      "3 × 12 12"}},
    {"demand",
     "appliances",
     {"water heater 4.5 kW", "2 × fan 1,200 W", "disposal 1/2 hp 120 V", "kiln 30 A", "kiln", "4.5 kW kiln", "kiln 4.5",
      "kiln -4 kW"},
     {{"of", "dwelling, standard"}}},
    {"demand",
     "welders",
     {"2 × 40 A 60 %", "12 kVA 30 % motor-generator", "40 A", "40 A 600 %", "arc 40 A 60 percent"},
     {{"of", "arc welders"}}},
};

/// Any letters, which the keys of a test's own keyboard do not have.
void typeLetters(QWidget& into, const char* text) {
    for (const QChar c : QString::fromUtf8(text)) {
        QKeyEvent press(QEvent::KeyPress, 0, Qt::NoModifier, QString(c)),
            release(QEvent::KeyRelease, 0, Qt::NoModifier, QString(c));
        QApplication::sendEvent(&into, &press);
        QApplication::sendEvent(&into, &release);
    }
}

} // namespace

TEST_CASE("the window and the command line answer two hundred entries alike") {
    Driven d;
    d.openDemo();
    d.act("bench");
    BenchPanel& panel = d.window.bench();
    const std::string book = d.s.solution().book->id;
    const auto lineOf = [&](const char* key) { return panel.findChild<QLineEdit*>(QString("bench:") + key); };
    const auto listOf = [&](const char* key) { return panel.findChild<QPlainTextEdit*>(QString("bench:") + key); };
    const auto shown = [&](const char* key) { return lineOf(key) ? lineOf(key)->text() : listOf(key)->toPlainText(); };
    const auto enter = [&](const char* key, const char* text) {
        QWidget* field = lineOf(key);
        if (!field) field = listOf(key);
        REQUIRE(field);
        field->setFocus();
        if (auto* line = lineOf(key))
            line->selectAll();
        else
            listOf(key)->selectAll();
        d.key(*field, Qt::Key_Delete);
        typeLetters(*field, text);
    };
    int entries = 0, answered = 0;
    for (const Asked& a : asked) {
        panel.choose(a.kind);
        for (const auto& [key, value] : a.beside) {
            auto* choice = panel.findChild<QComboBox*>(QString("bench:") + key);
            REQUIRE(choice);
            choice->setCurrentText(value);
            Q_EMIT choice->activated(choice->currentIndex());
            d.pump();
        }
        if (!panel.findChild<QWidget*>(QString("bench:") + a.key)) {
            panel.findChild<QPushButton*>("benchMore")->click();
            d.pump();
        }
        const auto* system = panel.findChild<QComboBox*>("bench:system");
        const QString same = system ? system->currentText() : QString();
        const QString before = shown(a.key);
        for (const char* text : a.texts) {
            INFO(a.kind << "." << a.key << ": " << text);
            ++entries;
            enter(a.key, text);
            d.pump();
            QStringList arguments{
                "bench", a.kind, "--book", QString::fromStdString(book), "--with", QString("%1=%2").arg(a.key, text)};
            for (const auto& [key, value] : a.beside) arguments << "--with" << QString("%1=%2").arg(key, value);
            if (!same.isEmpty())
                arguments << "--with"
                          << "system=" + same;
            QProcess cli;
            cli.start(LINTEL_CLI, arguments);
            REQUIRE(cli.waitForFinished(60000));
            const std::string out = cli.readAllStandardOutput().toStdString(),
                              err = cli.readAllStandardError().toStdString();
            INFO(err);
            INFO(panel.shownText().toStdString());
            REQUIRE(panel.answer().has_value() == (cli.exitCode() == 0));
            if (!panel.answer()) {
                CHECK_FALSE(panel.shownText().trimmed().isEmpty());
                CHECK_FALSE(err.empty());
                continue;
            }
            ++answered;
            CHECK(nlohmann::json::parse(out) == nlohmann::json::parse(panel.answer()->json().dump()));
        }
        enter(a.key, before.toUtf8().constData()); // the panel remembers what was typed
    }
    CHECK(entries >= 200);
    CHECK(answered >= 90);
}
