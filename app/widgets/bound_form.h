#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "app/widgets/entry_field.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

#include <functional>
#include <vector>

namespace westrum {

class FlowRow;

/// Rows of labelled fields, each bound to a value by a pair of functions: built once for what it shows, refreshed
/// whenever the job changes. A value that is gone by then is asked for no more: the owner builds anew first.
class BoundForm : public QWidget {
    Q_OBJECT
public:
    BoundForm(JobDocument& document, char decimalMark, QWidget* parent = nullptr);

    /// Takes all fields away; what is added next starts a first row.
    void clear();
    /// Starts another row.
    void row();
    void refresh();

    EntryField* length(const QString& label, const QString& objectName, std::function<MaybeReading()> get,
                       std::function<void(MaybeReading)> set);
    /// Of a mass that may be left out.
    EntryField* mass(const QString& label, const QString& objectName, std::function<std::optional<double>()> getKg,
                     std::function<void(std::optional<double>)> setKg);
    EntryField* count(const QString& label, const QString& objectName, int least, int most, std::function<int()> get,
                      std::function<void(int)> set);
    QLineEdit* text(const QString& label, const QString& objectName, std::function<std::string()> get,
                    std::function<void(const std::string&)> set);
    QWidget* choice(const QString& label, const QString& objectName, const QStringList& choices,
                    std::function<int()> get, std::function<void(int)> set);
    /// A choice in which another text may be typed.
    QWidget* suggestion(const QString& label, const QString& objectName, const QStringList& suggestions,
                        std::function<std::string()> get, std::function<void(const std::string&)> set);
    QWidget* flag(const QString& label, const QString& objectName, std::function<bool()> get,
                  std::function<void(bool)> set);
    QWidget* button(const QString& text, const QString& objectName, std::function<void()> act, bool quiet = false);
    /// A button that is one of several to choose from.
    QWidget* pick(const QString& text, const QString& objectName, bool chosen, std::function<void()> act);
    QWidget* words(const QString& text);
    /// The same, said anew whenever the job changes.
    QWidget* words(std::function<QString()> get);
    /// Pushes what is in the row to the left.
    void stretch();

signals:
    void problem(const QString& sentence);

private:
    void put(QWidget* widget, const QString& label = {});

    JobDocument& document_;
    char decimalMark_;
    QVBoxLayout* column_;
    FlowRow* row_ = nullptr;
    std::vector<std::function<void()>> refreshers_;
};

} // namespace westrum
