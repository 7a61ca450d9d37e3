#pragma once

#include <QWidget>

#include "app/document/job_document.h"
#include "formats/words.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include <functional>

namespace westrum {

/// Writes bytes atomically; returns an empty text, or why it could not be done.
QString saveBytes(const QString& path, const QByteArray& bytes);

/// A stage's page: a heading with the surface in hand, a line that says what matters most, and the bench below.
class StagePage : public QWidget {
    Q_OBJECT
public:
    StagePage(JobDocument& document, char decimalMark, QWidget* parent = nullptr);

protected:
    /// Called whenever the job, the plan or the surface in hand changed; while hidden, once when shown again.
    virtual void refresh() = 0;
    void showEvent(QShowEvent* event) override;

    /// Asks where to, and writes there. Returns what to say of it; empty if it was given up. `wrong`: it failed.
    QString askAndSave(const QString& what, const QString& proposal, const QString& filter,
                       const std::function<QString(const QString& path)>& write, bool& wrong);
    /// The line under the heading. `attention` draws it in pencil red.
    void say(const QString& sentence, bool attention = false);
    /// Why what was typed is refused, which stays said until something else happens than that figures come in; empty:
    /// it was put right or taken back.
    void answer(const QString& why);
    /// Shows figures that came in from behind, if the page is in sight.
    void figuresCameIn(const std::function<void()>& show);
    void setHeading(const QString& heading, const QString& detail);

    [[nodiscard]] Figures figures() const { return figuresFor(document_.job(), decimalMark_); }
    [[nodiscard]] const Surface* surface() const { return document_.job().surface(document_.currentSurface()); }
    [[nodiscard]] const std::string& surfaceId() const { return document_.currentSurface(); }
    /// Of the surface in hand; null until the first plan is there.
    [[nodiscard]] const SurfacePlan* surfacePlan() const {
        return document_.plan()->surface(document_.currentSurface());
    }
    [[nodiscard]] QVBoxLayout* column() const { return column_; }
    [[nodiscard]] QHBoxLayout* headingRow() const { return headingRow_; }
    [[nodiscard]] QHBoxLayout* sentenceRow() const { return sentenceRow_; }

    JobDocument& document_;
    char decimalMark_;

private:
    QLabel* heading_;
    QLabel* detail_;
    QLabel* sentence_;
    QVBoxLayout* column_;
    QHBoxLayout* headingRow_;
    QHBoxLayout* sentenceRow_;
    bool refused_ = false; // the sentence says why
    bool cameIn_ = false;  // it is figures from behind that are being shown
};

} // namespace westrum
