// Puts offcuts into a book, reserves, cuts and frees them, and says each thing that is done, until it is killed.

#include "records/book.h"

#include <QCoreApplication>

#include <cstdio>
#include <cstdlib>
#include <random>

using namespace westrum;

int main(int argc, char** argv) {
    QCoreApplication app(argc, argv);
    Book book;
    if (book.open(QString::fromLocal8Bit(argv[1]))) return 2;
    std::mt19937 dice(static_cast<unsigned>(argc > 2 ? std::atoi(argv[2]) : 1));
    std::puts("ready");
    std::fflush(stdout);
    for (;;) {
        std::vector<RackPiece> one{
            {.product = "sheet|ply|900", .name = "Ply", .lengthMm = 600, .widthMm = 400, .kept = {2027, 4, 1}}};
        if (book.keep(one)) return 3;
        std::printf("kept %s\n", one[0].number.c_str());
        std::fflush(stdout);
        const std::string job = dice() % 2 ? "a" : "b";
        RackUse use{job, job, {}, {}};
        for (const RackPiece& p : book.rack())
            if (p.state == RackPiece::State::Free || p.job == job) {
                if (dice() % 3 == 0)
                    use.reserved.insert(p.number);
                else if (p.state == RackPiece::State::Cut || dice() % 5 == 0)
                    use.cut.insert(p.number);
            }
        if (book.use(use)) return 4;
        std::printf("used %s %zu %zu\n", job.c_str(), use.reserved.size(), use.cut.size());
        std::fflush(stdout);
    }
}
