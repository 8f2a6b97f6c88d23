<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Facts\View;
use VividLedger\Message\Channel;
use VividLedger\Time\Due;
use VividLedger\Time\OutOfTime;

/**
 * Leads a slip at the moment its facts tell: reminders, running out of time, passing on. Touches nothing but by the way it is
 * given; each act gives the slip as it stands then, and what happened. Nobody in the list is asked twice, and it ends once.
 */
final readonly class SlipClerk
{
    private \DateTimeImmutable $now;

    public function __construct(private SlipPlan $plan, private View $view, private \DateTimeZone $zone, private SlipWay $way)
    {
        $this->now = $view->facts->now();
    }

    /** @param  ?int  $first  whom the record names already, of those the list leads to */
    public function begin(Reach $to, ?int $first): SlipMoved
    {
        $slip = $this->turn(new ReplySlip($this->now), $to, $first);

        return $to->isNobody() ? $this->next($slip, [self::unreached($to)])
            : new SlipMoved($slip, [new SlipEvent(SlipEventKind::Sent, $to->name(), channel: $this->channel($slip), path: $to->path)]);
    }

    /** What falls due by now: reminders, and somebody whose time has run out. */
    public function tend(ReplySlip $slip): SlipMoved
    {
        $turn = $slip->turn();
        if (! $slip->isOpen() || $turn === null) {
            return new SlipMoved($slip, []);
        }
        if ($turn->due !== null && $turn->due <= $this->now) {
            return $this->next($slip, []);
        }
        $nudge = $this->nudge($turn);
        if ($nudge === null || $nudge > $this->now) {
            return new SlipMoved($slip, []);
        }
        $slip = $slip->withTurn($turn->nudgedOnceMore(), true);

        return new SlipMoved($slip, [new SlipEvent(SlipEventKind::Nudged, $turn->name, channel: $this->channel($slip))]);
    }

    /**
     * Somebody wants it passed on before its time has run out.
     *
     * @throws NotTaken when it has ended, or nobody is left
     */
    public function passOn(ReplySlip $slip): SlipMoved
    {
        $this->mustBeOpen($slip);
        if ($this->plan->next?->next($this->view, $slip->candidates()) === null) {
            throw NotTaken::nobodyNext();
        }

        return $this->next($slip, []);
    }

    /**
     * Somebody else is asked in the place of whoever's turn it is, who has left the company.
     *
     * @throws NotTaken when it has ended
     */
    public function handOver(ReplySlip $slip, Reach $to): SlipMoved
    {
        $this->mustBeOpen($slip);
        $turn = $slip->turn();
        $next = $this->turn($turn === null ? $slip : $slip->withTurn($turn->ended(TurnState::PassedOn, $this->now), true), $to, null);
        if ($to->isNobody()) {
            return $this->next($next, [self::unreached($to)]);
        }

        return new SlipMoved($next, [
            new SlipEvent(SlipEventKind::HandedOver, $to->name(), $turn->name ?? '', $this->channel($next), path: $to->path),
        ]);
    }

    /**
     * @param  list<string>  $chosen  what was chosen, as it reads
     *
     * @throws NotTaken when it has ended
     */
    public function answered(ReplySlip $slip, array $chosen): SlipMoved
    {
        $this->mustBeOpen($slip);
        $name = $slip->turn()->name ?? '';

        return new SlipMoved($slip->ended(SlipStatus::Answered, $this->now, $chosen), [new SlipEvent(SlipEventKind::Answered, $name)]);
    }

    /** @throws NotTaken when it has ended */
    public function withdraw(ReplySlip $slip): SlipMoved
    {
        $this->mustBeOpen($slip);

        return self::ended($slip, SlipStatus::Withdrawn, $this->now);
    }

    public static function ended(ReplySlip $slip, SlipStatus $status, \DateTimeImmutable $at): SlipMoved
    {
        $name = $slip->turn()->name ?? '';

        return new SlipMoved($slip->ended($status, $at), [new SlipEvent(SlipEventKind::Ended, $name, status: $status)]);
    }

    /** When it has to be tended next; null when nothing falls due any more. */
    public function wakesAt(ReplySlip $slip): ?\DateTimeImmutable
    {
        $turn = $slip->isOpen() ? $slip->turn() : null;
        $moments = $turn === null ? [] : array_filter([$turn->due, $this->nudge($turn)]);

        return $moments === [] ? null : min($moments);
    }

    /** By which way whoever's turn it is hears next, or heard last. */
    public function channel(ReplySlip $slip): Channel
    {
        $turn = $slip->turn();
        $isTexted = $this->plan->textsAfter !== null && $turn?->text !== null && $turn->nudged >= $this->plan->textsAfter;

        return $turn?->mail === null || $isTexted ? Channel::Sms : Channel::Email;
    }

    /**
     * The next in the list who can be reached is asked; without one it ends.
     *
     * @param  list<SlipEvent>  $events  that came before
     */
    private function next(ReplySlip $slip, array $events): SlipMoved
    {
        $before = $slip->turn();
        while (($candidate = $this->plan->next?->next($this->view, $slip->candidates())) !== null) {
            $turn = $slip->turn();
            $slip = $turn === null ? $slip : $slip->withTurn($turn->ended(TurnState::PassedOn, $this->now), true);
            $to = $this->way->turnTo($candidate);
            if ($to === null) {
                return new SlipMoved($slip, $events, true);
            }
            $slip = $this->turn($slip, $to, $candidate);
            if (! $to->isNobody()) {
                $channel = $this->channel($slip);
                $events[] = new SlipEvent(SlipEventKind::PassedOn, $to->name(), $before->name ?? '', $channel, path: $to->path);

                return new SlipMoved($slip, $events);
            }
            $events[] = self::unreached($to);
        }
        $ended = self::ended($slip, SlipStatus::RunOut, $this->now);

        return new SlipMoved($ended->slip, [...$events, ...$ended->events]);
    }

    private function turn(ReplySlip $slip, Reach $to, ?int $candidate): ReplySlip
    {
        $turn = new SlipTurn(
            name: $to->name(), mail: $to->mail, text: $to->text, candidate: $candidate, sentAt: $this->now,
            due: $this->moment($this->plan->within, $this->now),
        );

        return $slip->withTurn($to->isNobody() ? $turn->ended(TurnState::Unreached, $this->now) : $turn);
    }

    private function nudge(SlipTurn $turn): ?\DateTimeImmutable
    {
        $every = $turn->nudged < SlipPlan::MOST_NUDGES ? $this->plan->remindEvery?->times($turn->nudged + 1) : null;
        $moment = $this->moment($every, $turn->sentAt);

        return $moment !== null && ($turn->due === null || $moment < $turn->due) ? $moment : null;
    }

    private function moment(?Due $due, \DateTimeImmutable $from): ?\DateTimeImmutable
    {
        try {
            return $due?->from($from, $this->zone, $this->view->facts->calendar(null));
        } catch (OutOfTime) {
            return null;
        }
    }

    private static function unreached(Reach $to): SlipEvent
    {
        return new SlipEvent(SlipEventKind::Unreached, $to->name(), path: $to->path);
    }

    /** @throws NotTaken */
    private function mustBeOpen(ReplySlip $slip): void
    {
        if (! $slip->isOpen()) {
            throw NotTaken::ended($slip->status);
        }
    }
}
