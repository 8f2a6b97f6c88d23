<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Words\Words;

/** What a rehearsal came to, counted. */
final readonly class Tally
{
    /** @param  list<string>  $ends  how fields stand in the end, where they differ from the beginning: "Status is Closed" */
    public function __construct(
        public int $emails,
        public int $texts,
        public int $notes,
        public int $tasks,
        public int $changes,
        public int $struck,
        public array $ends,
    ) {
    }

    /** @param  list<string>  $ends */
    public static function of(Played $played, array $ends): self
    {
        $counts = ['email' => 0, 'sms' => 0, 'app' => 0];
        [$tasks, $changes, $struck] = [0, 0, 0];
        foreach ($played->entries as $entry) {
            foreach ($entry->messages as $message) {
                $counts[$message->channel->value]++;
            }
            $tasks += count($entry->tasks);
            $told = $entry->told;
            $changes += $entry->isWhatIf || $told->rule === null ? 0 : count($told->changes);
            $struck += $told->kind === 'struck' ? count(self::listed($told->data['lines'] ?? [])) : 0;
        }

        return new self(
            emails: $counts['email'], texts: $counts['sms'], notes: $counts['app'], tasks: $tasks, changes: $changes, struck: $struck,
            ends: $ends,
        );
    }

    /** "1 e-mail and 1 field change". */
    public function said(): string
    {
        $parts = array_values(array_filter([
            $this->emails === 0 ? '' : Words::counted($this->emails, '{count} e-mail|{count} e-mails'),
            $this->texts === 0 ? '' : Words::counted($this->texts, '{count} text message|{count} text messages'),
            $this->notes === 0 ? '' : Words::counted($this->notes, '{count} note|{count} notes'),
            $this->tasks === 0 ? '' : Words::counted($this->tasks, '{count} task|{count} tasks'),
            $this->changes === 0 ? '' : Words::counted($this->changes, '{count} field change|{count} field changes'),
            $this->struck === 0 ? '' : Words::counted($this->struck, '{count} line struck out|{count} lines struck out'),
        ]));

        return $parts === [] ? Words::say('nothing') : Words::list($parts);
    }

    /** @return array<mixed> */
    private static function listed(mixed $value): array
    {
        return is_array($value) ? $value : [];
    }
}
