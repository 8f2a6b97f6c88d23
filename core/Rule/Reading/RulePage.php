<?php

declare(strict_types=1);

namespace VividLedger\Rule\Reading;

use VividLedger\Rule\Rule;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Part;
use VividLedger\Shape\Problem;
use VividLedger\Shape\Row;
use VividLedger\Shape\Way;

/** A rule as read: its rows, what is wrong with it, and the rule itself when nothing is. */
final readonly class RulePage
{
    /**
     * @param  list<Row>  $rows
     * @param  list<Problem>  $problems
     * @param  list<Offer>  $offers  what the word that was asked about can become
     * @param  list<Way>  $ways  the ways to fill in its form
     */
    public function __construct(
        public array $rows,
        public array $problems,
        public ?Rule $rule,
        public array $offers = [],
        public array $ways = [],
    ) {
    }

    /** The whole rule as one sentence, to be read aloud. */
    public function aloud(): string
    {
        $when = $this->aloudFrom('/when', Part::When);
        $onlyIf = $this->conditions('/onlyIf');
        $text = implode(', ', array_filter([
            $when === '' ? '' : "When {$when}",
            $onlyIf === '' || $onlyIf === 'always' ? '' : "only if {$onlyIf}",
            ...array_map(static fn (string $fires): string => "firing {$fires}", array_filter([$this->aloudFrom('/fires', Part::Fires)])),
        ]));
        $lines = [];
        foreach ($this->rows as $row) {
            if ($row->part === Part::Line && ! $row->off) {
                $lines[] = ($row->said === '' ? '' : "{$row->said} ").lcfirst($this->aloudFrom($row->at, Part::Line));
            }
        }

        $until = $this->conditions('/until/');
        $never = $this->aloudFrom('/never', Part::Never);
        $rest = ($until === '' ? '' : ", until {$until}").($never === '' ? '' : ", never {$never}");

        return $text.($lines === [] ? '.' : ': '.implode('; ', $lines)."{$rest}.");
    }

    /** @return list<string> the page row by row, as a person reads it: "Only if: Priority is Urgent" */
    public function sentences(): array
    {
        return array_map(
            static fn (Row $row): string => str_repeat('  ', $row->depth).($row->margin === '' ? ''
                : "{$row->margin}: ").$row->text().($row->off ? ' (switched off)' : ''),
            array_values(array_filter($this->rows, static fn (Row $row): bool => $row->text() !== '')),
        );
    }

    /** A row with the conditions that belong to it: "Set Review to Needed, only if Priority is Urgent". */
    private function aloudFrom(string $at, Part $part): string
    {
        foreach ($this->rows as $row) {
            if ($row->part === $part && $row->at === $at) {
                $below = $this->conditions("{$at}/");
                $margin = $this->margin("{$at}/");

                return $row->text().($below === '' ? '' : ($margin === '' ? ' ' : ", {$margin} ").$below);
            }
        }

        return '';
    }

    private function margin(string $prefix): string
    {
        foreach ($this->rows as $row) {
            if (str_starts_with($row->at, $prefix) && ($row->part === Part::Group || $row->part === Part::Condition)) {
                return $row->margin;
            }
        }

        return '';
    }

    private function conditions(string $prefix): string
    {
        $rows = array_values(array_filter(
            $this->rows,
            static fn (Row $row): bool => ($row->part === Part::Group || $row->part === Part::Condition)
                && str_starts_with("{$row->at}/", $prefix),
        ));

        if ($rows === []) {
            return '';
        }
        [$text] = $this->conditionsAloud($rows, 0);

        return $rows[0]->depth > 0 && $text[0] === '(' ? substr($text, 1, -1) : $text;
    }

    /**
     * A group joins its parts by "and" or "or", in brackets inside another group.
     *
     * @param  list<Row>  $rows  of the conditions
     * @return array{string, int} the words of the condition at a place, and the place of the row behind it
     */
    private function conditionsAloud(array $rows, int $at): array
    {
        $row = $rows[$at++];
        $parts = [];
        while (isset($rows[$at]) && $rows[$at]->depth > $row->depth) {
            [$parts[], $at] = $this->conditionsAloud($rows, $at);
        }
        if ($row->part === Part::Condition) {
            return [$row->text().($parts === [] ? '' : ' where '.implode(' and ', $parts)), $at];
        }
        $text = match ($row->text()) {
            'all of' => implode(' and ', $parts),
            'any of' => implode(' or ', $parts),
            default => trim($row->text().' '.implode(', ', $parts)),
        };

        return [$row->depth > 0 && count($parts) > 1 ? "({$text})" : $text, $at];
    }
}
