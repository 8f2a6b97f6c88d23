<?php

declare(strict_types=1);

namespace Tests\App\Support;

/** What a run of the rule of RunModelTest comes to, reckoned in the plainest way: a list of moments and a few ifs. */
final class PaperRun
{
    /** @var array<string, array{string, ?int}> state and moment of each line, by place and turn */
    public array $lines = [];

    public bool $over = false;

    public function __construct(int $started, ?int $due)
    {
        $this->lines['1/1'] = ['pencilled', $started + 2 * 86_400];
        $this->lines['2/1'] = ['pencilled', $due === null ? null : $due - 86_400];
        $this->lines['3/1'] = ['pencilled', $started + 3 * 86_400];
        $this->started = $started;
    }

    private int $started;

    /** @return list<array{int, string}> the moment and the line of what comes into ink up to a moment, in order */
    public function passTo(int $now): array
    {
        $inked = [];
        do {
            $next = null;
            foreach ($this->lines as $key => [$state, $at]) {
                if ($state === 'pencilled' && $at !== null && $at <= $now && ($next === null || $at < $this->lines[$next][1])) {
                    $next = $key;
                }
            }
            if ($next !== null) {
                [, $at] = $this->lines[$next];
                $this->lines[$next] = ['inked', $at];
                $inked[] = [(int) $at, $next];
                [$place, $turn] = array_map(intval(...), explode('/', $next));
                if ($place === 3 && $turn < 4) {
                    $this->lines['3/'.($turn + 1)] = ['pencilled', $this->started + 3 * 86_400 * ($turn + 1)];
                }
            }
        } while ($next !== null);
        $this->over = array_filter($this->lines, static fn (array $line): bool => $line[0] === 'pencilled') === [];

        return $inked;
    }

    public function dueMoved(?int $due): void
    {
        if ($this->lines['2/1'][0] === 'pencilled') {
            $this->lines['2/1'][1] = $due === null ? null : $due - 86_400;
        }
    }

    public function strike(): void
    {
        foreach ($this->lines as $key => [$state, $at]) {
            if ($state === 'pencilled') {
                $this->lines[$key] = ['struck', $at];
            }
        }
        $this->over = true;
    }
}
