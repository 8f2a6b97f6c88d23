<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Edit;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Reading\WordRole;

/** All person expressions. A new one is a new file and one line here. */
final class PersonExpressions
{
    /** @var list<class-string<PersonExpression>> */
    public const ALL = [Owner::class, Creator::class, NamedPerson::class, ManagerOf::class];

    /** Reads an expression and gives it one word in the sentence. */
    public static function word(Context $context, Node $node): ?PersonExpression
    {
        $problems = count($context->problems);
        $expression = self::read($context, $node);
        if ($expression !== null) {
            $context->word($expression->wording(), WordRole::Person, $node->at, Edit::Person);
        } else {
            $context->word($node->isMissing() ? 'choose a person' : 'somebody', WordRole::Missing, $node->at, Edit::Person);
            if (count($context->problems) === $problems) {
                $context->problem($node->at, 'missing', 'Choose a person.');
            }
        }

        return $expression;
    }

    public static function read(Context $context, Node $node): ?PersonExpression
    {
        foreach (self::ALL as $expression) {
            if ($expression::kind() === $node->kind()) {
                return $expression::read($context, $node);
            }
        }

        return null;
    }
}
