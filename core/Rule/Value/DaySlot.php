<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** A day that the calendar knows by another one. */
final readonly class DaySlot extends WordedAs
{
    /** How each reads, and what stands in the file. */
    public const DAYS = [
        'the next working day' => 'working_day',
        'the next Monday' => 'monday', 'the next Tuesday' => 'tuesday', 'the next Wednesday' => 'wednesday',
        'the next Thursday' => 'thursday', 'the next Friday' => 'friday', 'the next Saturday' => 'saturday', 'the next Sunday' => 'sunday',
        'the last day of the month' => 'month_end', 'the last working day of the month' => 'month_end_working',
        'the first day of the next month' => 'next_month', 'the first working day of the next month' => 'next_month_working',
        'the first Monday of the next month' => 'next_month_monday',
        'the last day of the quarter' => 'quarter_end', 'the last day of the year' => 'year_end',
    ];

    private const ALSO = [
        'the end of the month' => 'month_end', 'month end' => 'month_end', 'the end of its month' => 'month_end',
        'the last day of its month' => 'month_end', 'the end of the quarter' => 'quarter_end', 'quarter end' => 'quarter_end',
        'the end of the year' => 'year_end', 'year end' => 'year_end', 'the following working day' => 'working_day',
        'the next business day' => 'working_day', 'the first of the next month' => 'next_month', 'the first of next month' => 'next_month',
        'the first Monday of next month' => 'next_month_monday',
    ];

    public function read(Context $context, Node $node, Filled $around): ?string
    {
        $editor = Editor::choose('Which day', static fn (): array => array_map(
            static fn (string $label, string $day): Offer => new Offer($label, $day),
            array_keys(self::DAYS),
            self::DAYS,
        ));
        $label = array_search($node->raw, self::DAYS, true);
        if (! is_string($label)) {
            return $context->gap('which day', $node->at, $editor, 'missing', Words::say('Choose which day.'));
        }
        $context->word($label, WordRole::Value, $node->at, $editor);

        return self::DAYS[$label];
    }

    protected function slot(): Labels
    {
        return Labels::of(self::DAYS, self::ALSO);
    }
}
