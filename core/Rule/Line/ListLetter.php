<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Facts\Facts;
use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Schema\Path;
use VividLedger\Time\Amount;
use VividLedger\Time\Unit;
use VividLedger\Time\WorkingCalendar;

/** A list as a letter: tables under "Late", "Today" and the days to come, each record linked to its address; and the same as plain text. */
final class ListLetter
{
    /** A longer list nobody reads; how many more there are stands below it. */
    public const MOST_ROWS = 300;

    /** How many rows did not find room. */
    public int $left = 0;

    public int $rows = 0;

    /**
     * @var array<string, array<string, array{list<string>, list<array{string, string, list<string>}>}>> columns and rows (number,
     *     address, cells), by heading and section
     */
    private array $groups = [];

    private readonly string $today;

    private readonly string $last;

    private readonly string $coming;

    /** @param  int  $days  how far it looks ahead */
    public function __construct(
        private readonly Facts $facts,
        private readonly Display $display,
        private readonly \DateTimeZone $zone,
        WorkingCalendar $calendar,
        int $days,
        bool $workingDays,
    ) {
        $this->today = $facts->now()->setTimezone($zone)->format('Y-m-d');
        $this->last = (new Amount($days, $workingDays ? Unit::WorkingDay : Unit::Day))->from(
            $facts->now(),
            $zone,
            $calendar,
        )->setTimezone($zone)->format('Y-m-d');
        $this->coming = $days === 0 ? '' : 'Next '.($workingDays ? Unit::WorkingDay : Unit::Day)->label($days);
        $this->groups = ['Late' => [], 'Today' => [], $this->coming => []];
    }

    /** @param  list<Record>  $records */
    public function add(ListSection $section, array $records): void
    {
        $by = $section->by?->name;
        if ($by !== null) {
            usort(
                $records,
                static fn (Record $one, Record $other): int => [$one->value($by), $one->id] <=> [$other->value($by), $other->id],
            );
        }
        foreach ($records as $record) {
            $value = $by === null ? null : $record->value($by);
            $heading = $by === null ? $section->type->plural : (is_string($value) ? $this->heading($value) : null);
            if ($heading !== null) {
                $view = new View($record, $this->facts);
                $this->row($heading, $section->type->plural, array_map(
                    static fn (Path $path): string => $path->label(),
                    $section->columns,
                ), [
                    $section->type->numberOf($record->id), "/records/{$record->type}/{$record->id}",
                    array_map(fn (Path $path): string => $this->display->merged($path->field, $view->value($path)), $section->columns),
                ]);
            }
        }
    }

    /** @param  list<ListedTask>  $tasks */
    public function tasks(array $tasks): void
    {
        usort($tasks, static fn (ListedTask $one, ListedTask $other): int => $one->due <=> $other->due);
        foreach ($tasks as $task) {
            $due = $task->due;
            $heading = $due === null ? null : $this->heading($due->format('c'));
            if ($due !== null && $heading !== null) {
                $this->row(
                    $heading,
                    'Tasks',
                    ['Task', 'Due'],
                    [$task->number, "/records/{$task->type}/{$task->record}", [$task->title, $this->display->moment($due)]],
                );
            }
        }
    }

    public function isEmpty(): bool
    {
        return $this->rows === 0;
    }

    public function html(): string
    {
        $html = '';
        foreach (array_filter($this->groups) as $heading => $sections) {
            $html .= "<h3>{$this->counted($heading, $sections)}</h3>";
            foreach ($sections as $name => [$columns, $rows]) {
                $html .= $this->caption($heading, $name) === '' ? '' : '<p><strong>'.htmlspecialchars($name).'</strong></p>';
                $html .= '<table><thead><tr><th>Number</th>'.implode(
                    '',
                    array_map(static fn (string $column): string => '<th>'.htmlspecialchars($column).'</th>', $columns),
                ).'</tr></thead><tbody>';
                foreach ($rows as [$number, $address, $cells]) {
                    $html .= '<tr><td><a href="'.htmlspecialchars($address).'">'.htmlspecialchars($number).'</a></td>'.implode(
                        '',
                        array_map(static fn (string $cell): string => '<td>'.nl2br(htmlspecialchars($cell)).'</td>', $cells),
                    ).'</tr>';
                }
                $html .= '</tbody></table>';
            }
        }

        return $html.($this->left === 0 ? '' : "<p>… and {$this->left} more.</p>");
    }

    public function text(): string
    {
        $text = '';
        foreach (array_filter($this->groups) as $heading => $sections) {
            $text .= $this->counted($heading, $sections)."\n";
            foreach ($sections as $name => [$columns, $rows]) {
                $text .= $this->caption($heading, $name).'  '.implode(' | ', ['Number', ...$columns])."\n";
                foreach ($rows as [$number, $address, $cells]) {
                    $text .= '  '.str_replace("\n", ' ', implode(' | ', [$number, ...$cells]))." ({$address})\n";
                }
            }
            $text .= "\n";
        }

        return $text.($this->left === 0 ? '' : "… and {$this->left} more.\n");
    }

    /** @param  string  $value  "2026-11-24", or an instant */
    private function heading(string $value): ?string
    {
        $day = strlen($value) === 10 ? $value : (new \DateTimeImmutable($value))->setTimezone($this->zone)->format('Y-m-d');

        return match (true) {
            $day < $this->today => 'Late',
            $day === $this->today => 'Today',
            $day <= $this->last => $this->coming,
            default => null,
        };
    }

    /**
     * @param  list<string>  $columns
     * @param  array{string, string, list<string>}  $row
     */
    private function row(string $heading, string $section, array $columns, array $row): void
    {
        if ($this->rows >= self::MOST_ROWS) {
            $this->left++;

            return;
        }
        $this->rows++;
        $this->groups[$heading][$section] ??= [$columns, []];
        $this->groups[$heading][$section][1][] = $row;
    }

    /** @param  array<string, array{list<string>, list<array{string, string, list<string>}>}>  $sections */
    private function counted(string $heading, array $sections): string
    {
        return "{$heading} (".array_sum(array_map(static fn (array $section): int => count($section[1]), $sections)).')';
    }

    /** Which records they are, where the list is not of one sort alone. */
    private function caption(string $heading, string $section): string
    {
        $sections = array_unique(array_merge(...array_map(array_keys(...), array_values($this->groups))));

        return count($sections) > 1 && $heading !== $section ? "  {$section}\n" : '';
    }
}
