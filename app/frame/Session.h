#pragma once
// The open project as the windows see it: the document, the newest solution, the shared selection, the file.
// Every edit hands a snapshot to a worker thread; the interface never waits for it.

#include "core/check/Check.h"
#include "core/project/Keeper.h"
#include "core/sheets/Sheets.h"

#include <QObject>

#include <condition_variable>
#include <filesystem>
#include <functional>
#include <memory>
#include <mutex>
#include <thread>

namespace lintel {

/// One project with everything worked out from it. Views draw from one of these, so what they show always belongs
/// together.
struct Solution {
    Project project;
    std::shared_ptr<const RuleBook> book;
    Results results;
    std::vector<Snag> snags;
    std::uint64_t serial = 0;
    double milliseconds = 0;
    CheckInput input() const { return {project, *book, results}; }
};

class UnderlayShelf;
struct Merged;

class Session : public QObject {
    Q_OBJECT
public:
    explicit Session(QObject* parent = nullptr);
    ~Session() override;

    // ---- the project ----
    bool isOpen() const { return open_; }
    const Project& project() const { return document.project(); }
    const Solution& solution() const { return *newest; }
    std::shared_ptr<const Solution> sharedSolution() const { return newest; }
    /// How a file is opened: for work, for reading while another window works on it, or as a copy that has no file yet.
    enum class As { Work, Reading, Copy };
    /// Opens a file, or says why not and leaves everything as it was.
    std::optional<Error> open(const std::filesystem::path& file, As as = As::Work);
    /// Whether another window has the file open.
    bool openElsewhere(const std::filesystem::path& file) const { return keeper.openElsewhere(file); }
    /// Begins a project that has no file yet, as a copy of `start`.
    std::optional<Error> begin(const Project& start);
    std::optional<Error> beginFrom(const std::filesystem::path& shipped);
    std::optional<Error> recover(const std::filesystem::path& journal);
    SaveAnswer save(const SaveOptions& options = {});
    SaveAnswer saveAs(const std::filesystem::path& file, SaveOptions options = {});
    /// How many earlier versions are kept beside a file when it is saved; 0: none.
    static int oldVersions();
    static void keepOldVersions(int most);
    /// Puts what somebody else has saved to the file since it was opened, or saved, here together with the work here,
    /// as one step that undoes; what both changed in different ways is ours and told. Saving is free then. Errors: the
    /// file cannot be read.
    Outcome<Merged> mergeWithFile();
    /// Opened for reading: nothing can be changed.
    bool reading() const { return open_ && keeper.reading(); }
    /// Where a recovered copy may be saved; empty: it is none.
    std::filesystem::path copyName() const { return keeper.copyName(); }
    void close();
    /// Goes on without the journal, which stays where it is: what it holds is offered on the start page.
    void leaveJournal() { keeper.leaveJournal(); }
    bool changed() const { return open_ && keeper.changed(); }
    const std::filesystem::path& file() const { return keeper.file(); }
    QString title() const;
    /// Journals left behind by a run that ended badly.
    static std::vector<std::filesystem::path> leftBehind();
    static std::filesystem::path stateFolder();
    static QStringList recentFiles();
    static void forgetRecent(const QString& file);

    // ---- change ----
    /// The one door: does the change, records it for undo, journals it and has it solved.
    bool edit(const QString& label, const std::function<void(Project&)>& change, const std::string& mergeKey = "");
    /// While somebody reviews, `edit` refuses; what belongs to the review (ticks, remarks) is done by `reviewEdit`, at
    /// any time.
    bool reviewing() const { return reviewing_; }
    void setReviewing(bool on);
    bool reviewEdit(const QString& label, const std::function<void(Project&)>& change);
    void undo();
    void redo();
    bool canUndo() const { return document.canUndo(); }
    bool canRedo() const { return document.canRedo(); }
    QString undoLabel() const { return QString::fromStdString(document.undoLabel()); }
    QString redoLabel() const { return QString::fromStdString(document.redoLabel()); }
    /// The serial of the newest edit; the solution of it carries the same.
    std::uint64_t askedFor() const { return serial; }
    /// Waits until the newest edit is solved. False: it could not be worked out, or the time has run out.
    bool waitSolved(int milliseconds = mostWait);
    /// As that, before anything is printed or written: what is from before the newest edit does not go out. The error
    /// says so.
    std::optional<Error> refuseOld(int milliseconds = mostWait);
    static constexpr int mostWait = 60'000;
    /// What works a project out from now on: `solve`, unless a test puts something else in its place.
    using Solver = std::function<Results(const Project&, const RuleBook&)>;
    void solveWith(Solver by) { solver = std::move(by); }

    // ---- selection, shared by all stages ----
    Ref selection() const { return chosen.empty() ? Ref() : chosen.front(); }
    const std::vector<Ref>& selectionList() const { return chosen; }
    void select(Ref thing) { select(thing ? std::vector<Ref>{thing} : std::vector<Ref>{}); }
    void select(std::vector<Ref> things);
    /// The board that the selection belongs to or is.
    BoardId boardOfSelection() const;

    /// The files of the project's underlays.
    UnderlayShelf& underlays() { return *shelf; }
    /// What sheets are drawn from, with the underlays as far as they are read. `solution` must outlive it.
    SheetInput sheetInput(const Solution& solution) const;

    void say(const QString& message, bool isError = false) { Q_EMIT said(message, isError); }

Q_SIGNALS:
    void opened();
    void edited();
    void solved();
    void selectionChanged();
    /// A message for the strip at the bottom, until the next one.
    void said(const QString& message, bool isError);

private:
    void start(Project project, const std::filesystem::path& file, const std::string& bytes, bool forReading = false);
    void begun();
    void journalTrouble();
    /// What was written to the journal is brought to the disk within a second, so that a power cut loses no more.
    void syncJournal();
    std::optional<Error> useBook(const Basis& basis);
    /// Loads the book again where an edit, undo or redo changed which one it is or the project's own values in it.
    bool followBook();
    std::string bookId;
    std::map<std::string, double> bookValues;
    void ask();
    void work();
    void dropMissingSelection();
    void remember(const std::filesystem::path& file);

    UnderlayShelf* shelf;
    Document document;
    Project fromDisk;                  ///< as it was opened or saved last: what a merge with the file begins with
    std::vector<Project> beforeMerges; ///< the same before each merge that can be undone and is not saved yet
    Keeper keeper{document, stateFolder()};
    bool open_ = false;
    bool reviewing_ = false;
    int reviewUndos = 0, reviewRedos = 0; ///< steps of the review that can be undone while it goes on
    bool syncing = false;
    bool journalTold = false; ///< the person knows that the journal cannot be written
    std::shared_ptr<const RuleBook> book;
    std::shared_ptr<const Solution> newest;
    std::vector<Ref> chosen;
    std::uint64_t serial = 0;

    struct Request {
        Project project;
        std::shared_ptr<const RuleBook> book;
        std::uint64_t serial;
        Solver solver;
    };
    std::mutex mutex;
    std::condition_variable wake;
    std::optional<Request> request;
    bool stopping = false;
    Solver solver;
    std::uint64_t unsolvable = 0; ///< the newest edit that could not be worked out
    std::thread worker;
};

} // namespace lintel
