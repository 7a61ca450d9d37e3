#include "app/stages/stage_page.h"

#include "app/drawing/theme.h"

#include <QFileDialog>
#include <QHBoxLayout>

namespace westrum {

StagePage::StagePage(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent),
      document_(document),
      decimalMark_(decimalMark),
      heading_(new QLabel),
      detail_(new QLabel),
      sentence_(new QLabel),
      column_(new QVBoxLayout(this)),
      headingRow_(new QHBoxLayout),
      sentenceRow_(new QHBoxLayout) {
    column_->setContentsMargins(24, 12, 24, 12);
    column_->setSpacing(6);
    headingRow_->setSpacing(16);
    heading_->setFont(textFont(1.5, true));
    heading_->setTextFormat(Qt::PlainText);
    detail_->setTextFormat(Qt::PlainText);
    detail_->setWordWrap(true);
    sentence_->setTextFormat(Qt::PlainText);
    headingRow_->addWidget(heading_, 0, Qt::AlignBaseline);
    headingRow_->addWidget(detail_, 1, Qt::AlignBaseline);
    sentence_->setWordWrap(true);
    sentence_->setFont(textFont(1.08));
    sentence_->setObjectName(QStringLiteral("sentence"));
    sentenceRow_->addWidget(sentence_, 1);
    column_->addLayout(headingRow_);
    column_->addLayout(sentenceRow_);
    const auto again = [this] {
        if (isVisible()) refresh();
    };
    connect(&document_, &JobDocument::planComputed, this, [this] { figuresCameIn([this] { refresh(); }); });
    connect(&document_, &JobDocument::jobReplaced, this, again);
    connect(&document_, &JobDocument::jobChanged, this, again);
    connect(&document_, &JobDocument::currentSurfaceChanged, this, again);
}

void StagePage::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    refresh();
}

QString saveBytes(const QString& path, const QByteArray& bytes) {
    const auto fault = writeFile(bytes, path);
    return fault ? sentence(*fault) : QString();
}

QString StagePage::askAndSave(const QString& what, const QString& proposal, const QString& filter,
                              const std::function<QString(const QString&)>& write, bool& wrong) {
    wrong = false;
    const QString path = QFileDialog::getSaveFileName(this, what, proposal, filter);
    if (path.isEmpty()) return {};
    const QString why = write(path);
    wrong = !why.isEmpty();
    return wrong ? tr("%1 could not be saved: %2").arg(path, why) : tr("Saved as %1.").arg(path);
}

void StagePage::figuresCameIn(const std::function<void()>& show) {
    if (!isVisible()) return;
    cameIn_ = true;
    show();
    cameIn_ = false;
}

void StagePage::answer(const QString& why) {
    if (why.isEmpty()) return refresh();
    say(why, true);
    refused_ = true;
}

void StagePage::say(const QString& sentence, bool attention) {
    if (cameIn_ && refused_) return;
    refused_ = false;
    sentence_->setText(sentence);
    sentence_->setStyleSheet(attention ? QStringLiteral("color: %1;").arg(css(Theme::now().pencil)) : QString());
}

void StagePage::setHeading(const QString& heading, const QString& detail) {
    heading_->setText(heading);
    // What is planned on an outline in doubt says so, on every page.
    const bool doubt = surface() && heading == QString::fromStdString(surface()->name) && surfacePlan() &&
                       surfacePlan()->measured.inDoubt();
    detail_->setText(!doubt             ? detail
                     : detail.isEmpty() ? tr("the outline is in doubt")
                                        : tr("%1; the outline is in doubt").arg(detail));
    detail_->setStyleSheet(QStringLiteral("color: %1;").arg(css(Theme::now().muted)));
}

} // namespace westrum
