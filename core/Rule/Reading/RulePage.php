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
    ) {}

    /** The whole rule as one sentence, to be read aloud. */
    public function aloud(): string
    {
        $clauses = [];
        $conditions = [];
        foreach ($this->rows as $row) {
            match ($row->part) {
                Part::When => $clauses[] = 'When '.$row->text(),
                Part::Group => $conditions[] = [$row->depth, $row->text(), true],
                Part::Condition => $conditions[] = [$row->depth, $row->text(), false],
                Part::Fires, Part::Line => null,
            };
        }
        $onlyIf = self::conditionsAloud($conditions);
        if ($onlyIf !== '') {
            $clauses[] = 'only if '.$onlyIf;
        }
        $lines = [];
        foreach ($this->rows as $row) {
            if ($row->part === Part::Fires) {
                $clauses[] = 'firing '.$row->text();
            } elseif ($row->part === Part::Line) {
                $lines[] = lcfirst($row->text());
            }
        }

        return implode(', ', $clauses).($lines === [] ? '.' : ': '.implode('; ', $lines).'.');
    }

    /** @param list<array{int, string, bool}> $conditions depth, text, whether a group */
    private static function conditionsAloud(array $conditions): string
    {
        $text = '';
        $previous = -1;
        foreach ($conditions as [$depth, $words, $isGroup]) {
            if ($isGroup && $words === 'always') {
                return '';
            }
            $text .= match (true) {
                $text === '' => $words,
                $depth > $previous => ': '.$words,
                $depth < $previous => '; '.$words,
                default => ', '.$words,
            };
            $previous = $depth;
        }

        return $text;
    }
}
