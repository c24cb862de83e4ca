#pragma once
// Work beside the interface, of which only the newest counts: a slider that moves on, a text that is typed on.

#include <QCoreApplication>
#include <QObject>
#include <QPointer>

#include <atomic>
#include <functional>
#include <memory>
#include <stdexcept>
#include <string>
#include <thread>
#include <vector>

namespace lintel {

class Background : public QObject {
public:
    using Stop = std::shared_ptr<std::atomic<bool>>;
    /// Runs on a thread of its own; gives back what is to be done on the interface's thread. It asks `stop` now and
    /// then.
    using Work = std::function<std::function<void()>(const Stop& stop)>;

    using QObject::QObject;
    ~Background() override {
        cancel();
        for (Job& j : jobs) j.thread.join();
    }
    /// Stops what runs and begins this instead.
    void start(Work work) {
        cancel();
        std::erase_if(jobs, [](Job& j) {
            if (!j.done->load()) return false;
            j.thread.join();
            return true;
        });
        stop = std::make_shared<std::atomic<bool>>(false);
        const auto done = std::make_shared<std::atomic<bool>>(false);
        running = true;
        jobs.push_back({std::thread([this, work = std::move(work), mine = stop, done] {
                            std::function<void()> then;
                            try {
                                then = work(mine);
                            } catch (const std::exception& e) { // on the interface's thread it becomes a message
                                then = [what = std::string(e.what())] { throw std::runtime_error(what); };
                            }
                            if (!*mine)
                                QMetaObject::invokeMethod(
                                    this,
                                    [this, then = std::move(then), mine] {
                                        if (*mine) return;
                                        running = false;
                                        if (then) then();
                                    },
                                    Qt::QueuedConnection);
                            *done = true;
                        }),
                        done});
    }
    void cancel() {
        if (stop) *stop = true;
        running = false;
    }
    bool busy() const { return running; }

private:
    struct Job {
        std::thread thread;
        Stop done;
    };
    std::vector<Job> jobs;
    Stop stop;
    bool running = false;
};

} // namespace lintel
