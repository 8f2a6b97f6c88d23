<?php

declare(strict_types=1);

namespace VividLedger\Rule\Reading;

use VividLedger\Rule\Rule;

/** A rule as read: its rows, what is wrong with it, and the rule itself when nothing is. */
final readonly class RulePage
{
    /**
     * @param  list<Row>  $rows
     * @param  list<Problem>  $problems
     */
    public function __construct(
        public array $rows,
        public array $problems,
        public ?Rule $rule,
    ) {
    }

    /** The whole rule as one sentence, to be read aloud. */
    public function aloud(): string
    {
        $of = fn (Part $part): array => array_values(array_filter($this->rows, static fn (Row $row): bool => $row->part === $part));
        $conditions = array_values(array_filter($this->rows, static fn (Row $row): bool => $row->part === Part::Group || $row->part === Part::Condition));
        $onlyIf = $conditions === [] ? '' : self::conditionsAloud($conditions, 0)[0];
        $text = implode(', ', array_filter([
            ...array_map(static fn (Row $row): string => 'When '.$row->text(), $of(Part::When)),
            $onlyIf === 'always' ? '' : 'only if '.$onlyIf,
            ...array_map(static fn (Row $row): string => 'firing '.$row->text(), $of(Part::Fires)),
        ]));
        $lines = array_map(static fn (Row $row): string => lcfirst($row->text()), $of(Part::Line));

        return $text.($lines === [] ? '.' : ': '.implode('; ', $lines).'.');
    }

    /**
     * A group joins its parts by "and" or "or", in brackets inside another group.
     *
     * @param  list<Row>  $rows  of the conditions
     * @return array{string, int} the words of the condition at a place, and the place of the row behind it
     */
    private static function conditionsAloud(array $rows, int $at): array
    {
        $row = $rows[$at++];
        if ($row->part === Part::Condition) {
            return [$row->text(), $at];
        }
        $parts = [];
        while (isset($rows[$at]) && $rows[$at]->depth > $row->depth) {
            [$parts[], $at] = self::conditionsAloud($rows, $at);
        }
        $text = match ($row->text()) {
            'all of' => implode(' and ', $parts),
            'any of' => implode(' or ', $parts),
            default => trim($row->text().' '.implode(', ', $parts)),
        };

        return [$row->depth > 0 && count($parts) > 1 ? "({$text})" : $text, $at];
    }
}
