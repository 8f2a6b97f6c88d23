<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

/** One thing that is done to a sign-off, while all that follows from it is worked out. */
final class Sitting
{
    /** @var list<SignOffEvent> */
    private array $events = [];

    public function __construct(public SignOff $signOff)
    {
    }

    public function tell(
        SignOffEventKind $kind,
        ?int $person = null,
        ?int $other = null,
        ?Answer $answer = null,
        string $comment = '',
    ): void {
        $this->events[] = new SignOffEvent(
            kind: $kind, step: $this->signOff->step, person: $person, other: $other, answer: $answer, comment: $comment,
        );
    }

    public function end(SignOffStatus $status, \DateTimeImmutable $at): void
    {
        $this->signOff = $this->signOff->ended($status, $at);
        $this->events[] = new SignOffEvent(SignOffEventKind::Ended, $this->signOff->step, status: $status);
    }

    public function moved(): Moved
    {
        return new Moved($this->signOff, $this->events);
    }
}
