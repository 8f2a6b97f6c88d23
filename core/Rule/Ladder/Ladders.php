<?php

declare(strict_types=1);

namespace VividLedger\Rule\Ladder;

use VividLedger\Condition\WithoutNamed;
use VividLedger\People\PersonExpressions;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\WordRole;
use VividLedger\Time\Amount;
use VividLedger\Time\Due;
use VividLedger\Time\Unit;
use VividLedger\Words\Words;

/** Reads ladders: those kept in Setup under a name, and those written in a rule. */
final class Ladders
{
    /** Reads "ladder" or "rungs" of a line, and words it. */
    public static function read(Context $context, Node $node): ?Ladder
    {
        $name = $node->child('ladder')->text();
        $at = $node->child('ladder')->at;
        $offers = static fn (): array => array_map(
            static fn (string $known): Offer => new Offer($known, $known),
            $context->directory->ladders(),
        );
        if ($name === null && ! $node->child('rungs')->isMissing()) {
            $ladder = self::rungs($context, $node->child('rungs'), '');
            $context->choice('a ladder of '.count($node->child('rungs')->items()).' rungs', WordRole::Value, $at, $offers);
        } else {
            $kept = $name === null ? null : $context->directory->ladder($name);
            if ($kept === null) {
                return $context->gap(
                    $name ?? 'choose a ladder',
                    $at,
                    Editor::choose('Ladders', $offers),
                    'unknown_ladder',
                    $name === null ? Words::say('Choose a ladder. Ladders are kept in Setup.') : Words::say(
                        'There is no ladder ‘{name}’. Choose another.',
                        name: $name,
                    ),
                );
            }
            $inner = new Context($context->schema, new WithoutNamed($context->directory), $context->type, $context->zone);
            $inner->row(\VividLedger\Shape\Part::Line, $node);
            $ladder = self::rungs($inner, new Node($kept), $name);
            $context->choice("‘{$name}’", WordRole::Value, $at, $offers);
            if ($ladder === null) {
                return $context->problem(
                    $at,
                    'broken_ladder',
                    Words::say(
                        'The ladder ‘{name}’ has to be mended first: {message}',
                        name: $name,
                        message: $inner->sheet->problems[0]->message ?? Words::say('it is not finished.'),
                    ),
                );
            }
        }
        if ($ladder !== null) {
            $context->glue(': '.implode('; ', array_map(static fn (Rung $rung): string => self::said($rung), $ladder->rungs)));
        }

        return $ladder;
    }

    /** Reads a list of rungs and words nothing; the problems are noted at their places. */
    public static function rungs(Context $context, Node $list, string $name): ?Ladder
    {
        $rungs = [];
        $items = $list->items();
        foreach ($items as $index => $item) {
            $rung = self::rung($context, $item, $index + 1);
            if ($rung !== null) {
                $rungs[] = $rung;
            }
        }
        if ($items === [] || count($items) > Ladder::MOST) {
            return $context->problem($list->at, 'too_many', Words::say('A ladder has from 1 to {most} rungs.', most: Ladder::MOST));
        }

        return $rungs !== [] && count($rungs) === count($items) ? new Ladder($name, $rungs) : null;
    }

    /** "after 1 working day tells the owner’s manager" */
    public static function said(Rung $rung): string
    {
        $acts = array_map(static fn (RungAct $act): string => $act->said($rung->person->wording()), $rung->acts);
        $length = $rung->wait->amount->amount === 0 && $rung->wait->rest() === '' ? 'at once' : trim(
            "after {$rung->wait->length()} {$rung->wait->rest()}",
        );

        return "{$length} it ".implode(' and ', $acts);
    }

    private static function rung(Context $context, Node $node, int $number): ?Rung
    {
        $wait = $node->child('after')->isMissing() ? new Due(new Amount(0, Unit::Day)) : TimeReader::due($node->child('after'));
        if (is_string($wait) || $wait->amount->amount < 0) {
            return $context->problem(
                $node->child('after')->at,
                'wrong_type',
                is_string($wait) ? $wait : Words::say('A rung comes after the one before it.'),
            );
        }
        $person = PersonExpressions::read($context, $node->child('to'));
        if ($person === null) {
            return $context->problem($node->child('to')->at, 'missing', Words::say('Choose whom rung {number} finds.', number: $number));
        }
        $acts = [];
        foreach ($node->child('do')->items() as $item) {
            $act = RungAct::tryFrom($item->text() ?? '');
            if ($act === null) {
                return $context->problem($item->at, 'wrong_type', Words::say('A rung tells, reassigns, or raises the priority.'));
            }
            $acts[] = $act;
        }

        return $acts === [] ? $context->problem(
            $node->child('do')->at,
            'missing',
            Words::say('Say what rung {number} does.', number: $number),
        ) : new Rung($number, $wait, $person, $acts);
    }
}
