#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/widgets/entry_field.h"
#include "formats/words.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>

#include <array>
#include <functional>
#include <optional>
#include <vector>

namespace westrum {

/// When people work, where the van stands, what the weather will be, what must be ready first, in which order things
/// are done, and at what pace.
class WorkSetup : public QWidget {
    Q_OBJECT
public:
    explicit WorkSetup(JobDocument& document, QWidget* parent = nullptr);
    void show(const Figures& figures);
    /// Once the plan is settled after a switch: what it did to date, hours and how sure it is; empty: nothing was
    /// switched.
    [[nodiscard]] QString effect();

signals:
    void said(const QString& sentence, bool attention);

private:
    /// What a plan came to before something was switched.
    struct Before {
        QString what;
        std::optional<CivilDate> done, sure;
        double minutes{};
    };
    EntryField* field(const QString& id, const QString& name, int width, EntryField::Commit commit);
    void addWhen(QVBoxLayout* column);
    void addShops(QVBoxLayout* column);
    void addWhere(QVBoxLayout* column);
    void addWeather(QVBoxLayout* column);
    void addGates(QVBoxLayout* column);
    void addRules(QVBoxLayout* column);
    void addHours(QVBoxLayout* column);
    void showHours();
    void showDays();
    void loadForecast();
    void fetchForecast();
    void takeBytes(const QByteArray& bytes);
    void turn(WorkRule rule);
    void remember(const QString& what);

    JobDocument& document_;
    Figures figures_;
    std::optional<Before> before_;
    EntryField* start_;
    std::array<EntryField*, 7> week_{}, shops_{};
    QGridLayout* days_ = nullptr;
    std::size_t daysShown_ = 0;
    QLineEdit *newDate_, *newDay_;
    EntryField *latitude_, *longitude_, *offset_;
    QComboBox* change_;
    QPushButton *heated_, *tarpaulin_, *workshop_, *practised_;
    QLabel* forecast_;
    std::array<EntryField*, kWorkGates> expected_{};
    std::array<QPushButton*, kWorkGates> passed_{};
    std::array<QPushButton*, kWorkRules> rules_{};
    QGridLayout* hours_ = nullptr;
    std::vector<std::string> hoursShown_;
    std::vector<std::pair<EntryField*, EntryField*>> hourFields_;
};

} // namespace westrum
