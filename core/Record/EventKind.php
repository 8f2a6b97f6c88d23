<?php

declare(strict_types=1);

namespace VividLedger\Record;

/** What can happen to a record besides a change of its fields. */
enum EventKind: string
{
    /** What people do that a rule can wait for. */
    public const ARRIVING = [
        self::Reply, self::Comment, self::File, self::TaskDone, self::SlipAnswered, self::HookBrought,
    ];

    /** What lines of a run wait for. */
    public const AWAITED = [
        self::TaskDone, self::SeatSigned, self::StepSigned, self::SignedOff, self::SlipAnswered, self::SlipOver, self::CallEnded,
    ];

    /** What only lines wait for: it has no entry of its own. */
    private const WITHIN = [self::LineDue, self::SeatSigned, self::StepSigned, self::SlipAnswered, self::SlipOver, self::CallEnded];

    case Comment = 'comment';
    case File = 'file';
    case TaskDone = 'task_done';
    case Reply = 'reply';
    case ByHand = 'by_hand';
    case DateArrived = 'date_arrived';
    case FellQuiet = 'fell_quiet';
    case CameRound = 'came_round';
    case PutInForce = 'put_in_force';    // a rule starts on what matched when it was put in force
    case LineDue = 'line_due';           // a pencilled line falls due
    case SeatSigned = 'seat_signed';     // somebody agrees to a sign-off, and others are still asked
    case StepSigned = 'step_signed';     // a step of a sign-off is agreed to, and another comes
    case SignedOff = 'signed_off';       // a sign-off has ended, one way or another
    case SlipAnswered = 'slip_answered'; // somebody answered a slip
    case SlipOver = 'slip_over';         // a slip has ended without an answer
    case HookBrought = 'hook_brought';   // another system posted something that became or concerns the record
    case CallEnded = 'call_ended';       // another system has answered a call, or never will

    /** As said of a record: "the ticket gets a comment". */
    public function label(): string
    {
        return match ($this) {
            self::Comment => 'gets a comment',
            self::File => 'gets a file',
            self::TaskDone => 'has a task done',
            self::Reply => 'gets a reply',
            self::ByHand => 'is run by hand',
            self::DateArrived => 'comes to a date',
            self::FellQuiet => 'falls quiet',
            self::CameRound => 'is looked at by a timetable',
            self::PutInForce => 'matched when the rule was put in force',
            self::LineDue => 'has a line fall due',
            self::SeatSigned => 'has somebody agree to a sign-off',
            self::StepSigned => 'has a step of a sign-off agreed to',
            self::SignedOff => 'has a sign-off end',
            self::SlipAnswered => 'has a reply slip answered',
            self::SlipOver => 'has a reply slip end without an answer',
            self::HookBrought => 'is brought by a hook',
            self::CallEnded => 'has a call end',
        };
    }

    /** Whether a rule starts on it whatever it waits for: what matched when it was put in force. */
    public function startsAnyRule(): bool
    {
        return $this === self::PutInForce;
    }

    /** Whether it stands in the ledger by itself; what time brings about stands there as what followed from it. */
    public function hasOwnEntry(): bool
    {
        return ! $this->comesOnce() && ! in_array($this, self::WITHIN, true);
    }

    /** Whether time brings it about, so that its occasion may fire a rule once and never again. */
    public function comesOnce(): bool
    {
        return in_array($this, [self::DateArrived, self::FellQuiet, self::CameRound, self::PutInForce], true);
    }
}
