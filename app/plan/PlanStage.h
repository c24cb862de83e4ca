#pragma once
// Plan: the modes, and beside the floor the page of each: what can be placed, the underlays, rooms and recipes,
// catchments, or how wiring is coloured and what is shown.

#include "app/plan/PlanView.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPlainTextEdit;
class QSlider;
class QSpinBox;
class QStackedWidget;
class QVBoxLayout;

namespace lintel {

class MatrixCard;
class RecipeCard;

class PlanStage : public QWidget {
    Q_OBJECT
public:
    explicit PlanStage(Session& session, QWidget* parent = nullptr);
    PlanView& plan() { return *view; }
    QListWidget* palette_() { return things; }
    RecipeCard* recipeCard() { return recipes; }
    MatrixCard* matrixCard() { return matrix; }
    /// Has a new keyed note in the hand, and waits for what it says.
    void beginKeyedNote();
    /// Links a DXF drawing or a picture below the level on screen.
    void linkUnderlay(const QString& file);

private:
    QWidget* lookPage();
    QWidget* placePage();
    QWidget* roomsPage();
    QWidget* circuitPage();
    QWidget* catchmentPage();
    QWidget* underlayPage();
    void rebuild();
    void followSelection();
    void rebuildPalette();
    void showPlaceFields();
    void rebuildUnderlays();
    void rebuildRooms();
    UnderlayId underlayChosen() const;
    std::string kindChosen() const;

    Session& session;
    PlanView* view;
    QComboBox* levels;
    QListWidget *modes, *things;
    QStackedWidget* pages;
    QComboBox *how = nullptr, *roomLayers = nullptr;
    QLineEdit *spacing = nullptr, *target = nullptr, *arrayOf = nullptr;
    QPlainTextEdit* note = nullptr;
    QWidget* typeButtons = nullptr;
    bool begins = false;          ///< a project was opened, and nothing has been chosen since
    std::vector<Ref> begunWith{}; ///< what is chosen then
    QSpinBox *rows = nullptr, *columns = nullptr;
    QListWidget *kinds = nullptr, *catchments = nullptr, *underlays = nullptr, *layers = nullptr;
    QSlider* fade = nullptr;
    QLabel *underlayState = nullptr, *density = nullptr;
    QCheckBox *propose = nullptr, *neutrals = nullptr;
    std::vector<QCheckBox*> shows;
    RecipeCard* recipes;
    MatrixCard* matrix;
};

} // namespace lintel
