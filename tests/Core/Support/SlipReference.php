<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use VividLedger\Slip\SlipPlan;

/** What a slip should come to, told from hour to hour in the simplest way there is. */
final class SlipReference
{
    private int $person = 1;

    private int $since = 0;

    private int $nudged = 0;

    /** @param  array<int, array{bool, bool}>  $people  mail and phone, by id from one */
    public function __construct(
        private readonly array $people,
        private readonly ?int $every,
        private readonly ?int $within,
        private readonly ?int $texts,
        private readonly bool $hasNext,
    ) {
    }

    /** @return list<array{string, string, string}> */
    public function begin(): array
    {
        return $this->isReached() ? [['sent', $this->name(), $this->way()]] : [['unreached', '', ''], ...$this->next(0)];
    }

    /** @return list<array{string, string, string}> */
    public function hour(int $hour): array
    {
        if ($this->within !== null && $hour >= $this->since + $this->within) {
            return $this->next($hour);
        }
        $mayRemind = $this->every !== null && $this->nudged < SlipPlan::MOST_NUDGES;
        $reminder = $mayRemind ? $this->since + $this->every * ($this->nudged + 1) : null;
        if ($reminder === null || $hour < $reminder || ($this->within !== null && $reminder >= $this->since + $this->within)) {
            return [];
        }
        $this->nudged++;

        return [['nudged', $this->name(), $this->way()]];
    }

    /** @return list<array{string, string, string}> */
    public function passOn(int $hour): array
    {
        return $this->hasNext && isset($this->people[$this->person + 1]) ? $this->next($hour) : [];
    }

    /** @return list<array{string, string, string}> */
    public function answered(): array
    {
        return [['answered', $this->name(), '']];
    }

    /** @return list<array{string, string, string}> */
    public function withdrawn(): array
    {
        return [['ended', $this->name(), 'withdrawn']];
    }

    /** @return list<array{string, string, string}> */
    private function next(int $hour): array
    {
        $told = [];
        while ($this->hasNext && isset($this->people[$this->person + 1])) {
            [$this->person, $this->since, $this->nudged] = [$this->person + 1, $hour, 0];
            if ($this->isReached()) {
                return [...$told, ['passed_on', $this->name(), $this->way()]];
            }
            $told[] = ['unreached', '', ''];
        }

        return [...$told, ['ended', $this->isReached() ? $this->name() : '', 'run_out']];
    }

    private function isReached(): bool
    {
        return $this->people[$this->person] !== [false, false];
    }

    private function name(): string
    {
        return "Person {$this->person}";
    }

    private function way(): string
    {
        [$mail, $phone] = $this->people[$this->person];

        return ! $mail || ($phone && $this->texts !== null && $this->nudged >= $this->texts) ? 'sms' : 'email';
    }
}
