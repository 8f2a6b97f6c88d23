<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Engine\Performance;
use VividLedger\People\Finder;
use VividLedger\People\PersonExpression;
use VividLedger\People\PersonExpressions;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\WordRole;

/** Lets a person follow the record, or follow it no more. */
final readonly class Follow implements Line
{
    private function __construct(private PersonExpression $who, private bool $follows)
    {
    }

    public static function kind(): string
    {
        return 'follow';
    }

    public static function label(): string
    {
        return 'Let somebody follow it';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $context->glue('Let');
        $who = PersonExpressions::word($context, $node->child('who'));
        $follows = $node->child('stop')->raw !== true;
        $context->choice(
            $follows ? 'follow' : 'no longer follow',
            WordRole::Value,
            $node->child('stop')->at,
            static fn (): array => [new Offer('follow', null), new Offer('no longer follow', true)],
        );
        $context->glue("the {$context->type->inSentence()}");

        return $who === null ? null : new self($who, $follows);
    }

    public function perform(Performance $performance): void
    {
        $found = Finder::find($this->who, $performance);
        if ($found->person === null) {
            $performance->failed('Following', "nobody was found: {$found->path}");

            return;
        }
        $performance->follow($found->person, $this->follows, $found->path);
    }
}
