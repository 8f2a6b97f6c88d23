<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Record\Display;

/** A rehearsal as lines of text, one for each thing that happened: what a proof keeps and compares. */
final readonly class Outline
{
    public function __construct(private Display $display)
    {
    }

    /** @return list<string> */
    public function of(Played $played): array
    {
        $lines = [];
        foreach ($played->entries as $entry) {
            $begin = "{$this->display->moment($entry->at)} · ".($entry->told->rule->name ?? ($entry->isWhatIf ? 'What if' : 'It begins'));
            foreach ($this->parts($entry) as $part) {
                $lines[] = "{$begin}: {$part}";
            }
        }
        foreach ($played->left as $line) {
            $lines[] = 'In the end one line still waits'.($line->due === null ? '' : ", for {$this->display->moment($line->due)}").'.';
        }
        if ($played->why !== null && $played->why->reason !== \VividLedger\Explain\Reason::Fires) {
            // Only that: why it is so may be worded anew without anything having changed.
            $lines[] = 'The rule does not fire.';
        }

        return $lines;
    }

    /** @return list<string> */
    private function parts(PaperEntry $entry): array
    {
        $data = $entry->told->data;
        $changes = implode(
            ', ',
            array_map(
                static fn (array $change): string => "{$change['label']} {$change['before']} → {$change['after']}",
                $this->rows($data['changes'] ?? []),
            ),
        );
        $because = is_string($data['because'] ?? null) ? $data['because'] : '';
        $lines = implode(', ', array_map(static fn (array $line): string => "‘{$line['said']}’", $this->rows($data['lines'] ?? [])));

        return match ($entry->told->kind) {
            'fired', 'line' => array_map(self::did(...), $this->rows($data['did'] ?? [])) ?: ['nothing to do'],
            'created' => ["created, {$changes}"],
            'changed' => [$changes === '' ? 'nothing changed' : $changes],
            'struck' => ["struck out {$lines}, {$because}"],
            'too_late' => ["left out {$lines}, {$because}"],
            'retimed' => ["moved {$lines}, {$because}"],
            'postponed' => ["put off {$lines}, {$because}"],
            'stopped' => ['the chain of rules was stopped'],
            'refused' => ['refused: '.(is_string($data['message'] ?? null) ? $data['message'] : '')],
            default => [
                str_replace('_', ' ', $entry->told->kind).(is_string($data['text'] ?? null)
                    && $data['text'] !== '' ? " “{$data['text']}”" : ''),
            ],
        };
    }

    /** @param  array<string, string>  $outcome  as an entry keeps it */
    private static function did(array $outcome): string
    {
        $on = ($outcome['on'] ?? '') === '' ? '' : " on {$outcome['on']}";

        return match ($outcome['kind'] ?? '') {
            'set' => "{$outcome['label']}{$on} set to {$outcome['after']}",
            'task' => "task “{$outcome['title']}” to ".(($outcome['person'] ?? '') === '' ? 'nobody' : $outcome['person']).(($outcome['due']
                ?? '') === '' ? '' : ", due {$outcome['due']}"),
            'message' => "message “{$outcome['subject']}” to {$outcome['to']}",
            'created' => "made {$outcome['record']}",
            'comment' => "commented{$on} “{$outcome['text']}”",
            'follow' => "{$outcome['person']} ".($outcome['follows'] === '1' ? 'follows' : 'follows no more'),
            default => "{$outcome['label']}: {$outcome['why']}",
        };
    }

    /** @return list<array<string, string>> */
    private function rows(mixed $list): array
    {
        $rows = [];
        foreach (is_array($list) ? $list : [] as $row) {
            $rows[] = array_map(static fn (mixed $value): string => is_scalar($value) ? (string) $value : '', is_array($row) ? $row : []);
        }

        /** @var list<array<string, string>> $rows */
        return $rows;
    }
}
