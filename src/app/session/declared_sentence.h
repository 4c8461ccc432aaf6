#pragma once

#include "app/form/sentence_view.h"

namespace knot::app {

class Book;
class Declaring;
class EarlierTests;
class TestInHand;

/// A sentence about the test in hand, whose chips change what is declared. Without `earlier` nothing is offered that
/// earlier tests tell.
SentenceSource declaredSentence(const TestInHand& hand, Declaring& declaring, Book& book,
                                std::function<std::vector<ask::Piece>(const record::Test& test)> pieces,
                                std::function<bool(const ask::Chip& chip)> stands,
                                const EarlierTests* earlier = nullptr);

} // namespace knot::app
