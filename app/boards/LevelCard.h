#pragma once
// Levelling as a choice: the slider of moves allowed, what each comes to, the list of moves, the proof; and the boards
// below as one, by the phases they hang on. What is chosen is shown on the board before it is applied.

#include "app/boards/BoardCard.h"
#include "app/frame/Background.h"
#include "app/frame/LevelGauge.h"
#include "core/level/Level.h"

class QLabel;
class QListWidget;
class QPushButton;
class QSlider;

namespace lintel {

class LevelCurve;

class LevelCard : public BoardCard {
    Q_OBJECT
public:
    explicit LevelCard(Session& session, QWidget* parent = nullptr);
    /// Works out the choices for a board, beside the interface.
    void open(BoardId board);
    void apply() override;
    bool ready() const { return !work->busy(); }
    const LevelChoices& choices() const { return level; }
    /// Chooses so many moves, as the slider does.
    void choose(int moves);
    QSlider* moves() { return slider; }
    QString proofText() const;
    /// The boards below as one instead, and back.
    void showTogether(bool together);

Q_SIGNALS:
    void proposed(std::vector<std::pair<CircuitId, int>> places);

protected:
    void stop() override;

private:
    void fill();
    void refresh();
    Background* work;
    BoardId board;
    std::uint64_t serial = 0; ///< of the solution that the choices are for
    LevelChoices level;
    TurningChoices turning;
    bool together = false;
    LevelCurve* curve;
    QSlider* slider;
    QLabel *heading, *figures, *proof;
    QListWidget* list;
    LevelGauge* gauge;
    Arrangement sided; ///< what belongs to the left brought there
    QPushButton *one, *all, *sides;
};

} // namespace lintel
