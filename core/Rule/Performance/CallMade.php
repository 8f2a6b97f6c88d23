<?php

declare(strict_types=1);

namespace VividLedger\Rule\Performance;

use VividLedger\Facts\Awaited;
use VividLedger\Record\Member;
use VividLedger\Record\Record;
use VividLedger\Record\WaitedSort;
use VividLedger\Rule\Call\KeptAnswer;

/** A call that a line wants made: what is sent, and what of the answer is kept. */
final readonly class CallMade
{
    /** How a call ends. */
    public const SUCCEEDED = 'succeeded';

    public const FAILED = 'failed';

    /**
     * @param  array<array-key, mixed>  $payload  as JSON
     * @param  list<KeptAnswer>  $keeps
     * @param  int  $place  of the line in its page, from 0
     * @param  string  $key  by which later lines wait for it; empty for none
     */
    public function __construct(
        public Record $record,
        public string $endpoint,
        public array $payload,
        public array $keeps,
        public int $place,
        public string $key,
    ) {
    }

    /**
     * How far it has come, for lines that wait for it.
     *
     * @param  ?\DateTimeImmutable  $endedAt  null while it is on its way
     * @param  string  $ended  empty before
     */
    public static function awaits(\DateTimeImmutable $made, ?\DateTimeImmutable $endedAt = null, string $ended = ''): Awaited
    {
        return new Awaited($endedAt === null ? 1 : 0, $made, null, $endedAt, $ended, sort: WaitedSort::Call);
    }

    /** A member of an answer by its name, with dots between the levels; null for what is not there, or is no plain value. */
    public static function member(mixed $answer, string $name): string|int|float|bool|null
    {
        [, $member] = Member::find($answer, $name);

        return is_scalar($member) ? $member : null;
    }
}
