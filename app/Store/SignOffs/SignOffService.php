<?php

declare(strict_types=1);

namespace App\Store\SignOffs;

use App\Models\Ledger\Entry;
use App\Models\Records\StoredRecord;
use App\Models\SignOffs\StoredSignOff;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Records\SaveRecord;
use App\Store\Records\StoredFacts;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\Sql\Batch;
use App\Store\Types\SchemaStore;
use Closure;
use Illuminate\Database\Connection;
use VividLedger\Facts\View;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\SignOff\Answer;
use VividLedger\SignOff\Clerk;
use VividLedger\SignOff\Hold;
use VividLedger\SignOff\Moved;
use VividLedger\SignOff\NotDecided;
use VividLedger\SignOff\PassesLock;
use VividLedger\SignOff\Seat;
use VividLedger\SignOff\SignOffEvent;
use VividLedger\SignOff\SignOffEventKind;
use VividLedger\SignOff\SignOffStatus;
use VividLedger\Words\Words;

/**
 * Where sign-offs are decided: each act is one transaction with its entry, the notes to whoever is asked, and what the rules make
 * of the end. Two who answer at once come one after the other.
 */
final readonly class SignOffService
{
    private const REASON_LENGTH = 500;

    public function __construct(
        private Connection $db,
        private HouseClock $clock,
        private Company $company,
        private SchemaStore $schemas,
        private SaveRecord $save,
        private SignOffRoutes $routes,
        private SignOffRepository $keeper,
        private SignOffNotes $notes,
        private SignOffRelease $release,
    ) {
    }

    /**
     * @param  array<array-key, mixed>  $corrections  raw values by field name, of what the step lets them correct
     *
     * @throws DomainError when it has ended, when the person is not being asked, when a no comes without its reason, and when a
     *     correction cannot be taken
     */
    public function answer(int $id, int $person, Answer $answer, string $comment, array $corrections = []): StoredSignOff
    {
        return $this->move($id, new Actor($person), function (Clerk $clerk, StoredSignOff $kept) use (
            $person, $answer, $comment, $corrections,
        ): Moved {
            if ($corrections === []) {
                return $clerk->answer($kept->signOff(), $person, $answer, $comment);
            }
            $this->correct($kept, $clerk->mayCorrect($kept->signOff(), $person), $person, $corrections);

            // On the record as it is now: what it has become can count for the step, and for those that come.
            return $this->clerkNow($kept)->answer($kept->signOff(), $person, $answer, $comment);
        });
    }

    /** @throws DomainError when it has ended, and when somebody else asked for it */
    public function withdraw(int $id, int $person, bool $mayAny): StoredSignOff
    {
        return $this->move($id, new Actor($person), static function (Clerk $clerk, StoredSignOff $kept) use ($person, $mayAny): Moved {
            if ($kept->asker_id !== $person && ! $mayAny) {
                throw new DomainError('not_allowed', Words::say('Only whoever asked for it can withdraw it.'), RefusedFor::NotAllowed);
            }

            return $clerk->withdraw($kept->signOff());
        });
    }

    /** @throws DomainError when it has ended, when the person is not being asked, and when the other cannot be */
    public function handOver(int $id, int $person, int $to, string $comment): StoredSignOff
    {
        return $this->move($id, new Actor($person), static fn (Clerk $clerk, StoredSignOff $kept): Moved => $clerk->handOver(
            $kept->signOff(),
            $person,
            $to,
            $comment,
        ));
    }

    /** @throws DomainError */
    public function askBack(int $id, int $person, string $question): StoredSignOff
    {
        return $this->move($id, new Actor($person), static fn (Clerk $clerk, StoredSignOff $kept): Moved => $clerk->askBack(
            $kept->signOff(),
            $person,
            $question,
        ));
    }

    /**
     * @param  int  $place  of the seat of whoever asked
     *
     * @throws DomainError when somebody else asked for the sign-off
     */
    public function answerBack(int $id, int $place, int $person, bool $mayAny, string $answer): StoredSignOff
    {
        return $this->move($id, new Actor($person), static function (Clerk $clerk, StoredSignOff $kept) use (
            $place, $person, $mayAny, $answer,
        ): Moved {
            if ($kept->asker_id !== $person && ! $mayAny) {
                throw new DomainError('not_allowed', Words::say('The question is for whoever asked for the sign-off.'),
                    RefusedFor::NotAllowed);
            }

            return $clerk->answerBack($kept->signOff(), $place, $person, $answer);
        });
    }

    /** What has fallen due: reminders, people whose time has run out, ways that lead elsewhere, and records that are to be free. */
    public function tend(int $id): StoredSignOff
    {
        return $this->move($id, new Actor(null, CauseKind::Rule), static fn (Clerk $clerk, StoredSignOff $kept): Moved => $clerk->tend(
            $kept->signOff(),
        ));
    }

    /**
     * Goes on along other steps: what was agreed to stays, the step at hand begins anew.
     *
     * @param  list<mixed>  $steps  as a rule file writes them
     */
    public function reroute(int $id, array $steps, int $person): StoredSignOff
    {
        return $this->move($id, new Actor($person), function (Clerk $clerk, StoredSignOff $kept) use ($steps): Moved {
            $kept->route = $steps;

            return $this->clerkNow($kept)->moveHere($kept->signOff());
        });
    }

    /**
     * Sets the record free while the sign-off goes on.
     *
     * @throws DomainError when it locks nothing, or no reason is given
     */
    public function unlock(int $id, int $person, string $reason): StoredSignOff
    {
        $reason = trim($reason);
        if ($reason === '' || mb_strlen($reason) > self::REASON_LENGTH) {
            $message = $reason === ''
                ? Words::say('Say why. The ledger keeps it.')
                : Words::say('A reason has at most {reasonlength} characters.', reasonlength: self::REASON_LENGTH);
            throw new DomainError('invalid_values', $message, RefusedFor::Invalid, [
                ['at' => '/reason', 'code' => 'missing', 'message' => $message],
            ]);
        }

        return $this->db->transaction(function () use ($id, $person, $reason): StoredSignOff {
            $kept = $this->locked($id);
            if (! $kept->signOff()->isOpen() || $kept->hold === Hold::Nothing || $kept->released) {
                throw new DomainError('wrong_state', Words::say('It locks nothing.'), RefusedFor::Conflict);
            }
            $entry = Batch::insertForIds(Entry::class, [Entry::row('lock_released', $this->clock->now(), ['reason' => $reason], [
                'actor_id' => $person, 'record_type' => $kept->record_type, 'record_id' => $kept->record_id,
                'rule_id' => $kept->rule_id, 'page' => $kept->page, 'cause_id' => $kept->entry_id,
            ])])[0];
            $this->release->release($kept, $entry);

            return $kept;
        });
    }

    /** @param  Closure(Clerk, StoredSignOff): Moved  $act */
    private function move(int $id, Actor $actor, Closure $act): StoredSignOff
    {
        try {
            $kept = $this->db->transaction(fn (): StoredSignOff => $this->clock->freeze(function () use ($id, $actor, $act): StoredSignOff {
                $kept = $this->locked($id);
                if ($actor->personId === null && $kept->status !== SignOffStatus::Waiting) {
                    $kept->update(['wakes_at' => null]);
                    $this->release->release($kept, $kept->entry_id);

                    return $kept;
                }
                $facts = $this->facts();
                $record = $facts->record($kept->record_type, $kept->record_id);
                $clerk = $record === null ? null : $this->routes->clerk($kept, new View($record, $facts));
                if ($record === null || $clerk === null) {
                    $kept->isGone = true;
                    if ($kept->status === SignOffStatus::Waiting) {
                        $this->keeper->end($kept, SignOffStatus::Stopped, new Actor(null, CauseKind::Rule));
                    }

                    return $kept;
                }
                $moved = $act($clerk, $kept);
                $this->keeper->keep($kept, $moved->signOff, $this->routes->wakesAt($kept, $moved->signOff, $facts));
                if ($this->routes->givesTasks($kept)) {
                    SignOffTasks::over($kept->id, $actor->personId, $this->clock->now());
                }
                if ($moved->events !== []) {
                    $this->tell($kept, $moved, $actor, $record);
                }

                return $kept;
            }));
        } catch (NotDecided $not) {
            throw new DomainError($not->reason, $not->getMessage(), match ($not->reason) {
                'no_comment', 'cannot_be_given', 'nobody_to_ask' => RefusedFor::Invalid,
                'not_asked' => RefusedFor::NotAllowed,
                default => RefusedFor::Conflict,
            });
        }
        // That it has ended is kept; what was said was not taken all the same.
        if ($kept->isGone && $actor->personId !== null) {
            throw new DomainError('ended', Words::say('What it was about is gone, so it has ended undecided.'), RefusedFor::Conflict);
        }

        return $kept;
    }

    /** The entry, the notes to those who are asked, and what has ended as an event that rules and waiting lines answer. */
    private function tell(StoredSignOff $kept, Moved $moved, Actor $actor, Record $record): void
    {
        $entry = $this->keeper->entry($kept, $actor, $moved->events);
        $this->notes->happened($kept, $moved->events, $record, $entry, $this->routes->givesTasks($kept, $moved->signOff->step));
        $steps = array_filter($moved->events, static fn (SignOffEvent $event): bool => $event->kind === SignOffEventKind::StepAgreed);
        if (! $moved->signOff->isOpen()) {
            $status = $moved->signOff->status->said();
            $this->recordEvent($kept, new Event(EventKind::SignedOff, "sign_off:{$kept->id}", $status), $actor, ['text' => $status],
                $entry);
            $this->release->release($kept, $entry);
        } elseif ($steps !== []) {
            $event = new Event(EventKind::StepSigned, "sign_off:{$kept->id}:{$moved->signOff->step}");
            $this->recordEvent($kept, $event, $actor, [], $entry);
        } elseif (self::hasYes($moved) && $this->routes->hearsEachYes($kept)) {
            $yes = count($moved->signOff->yes());
            $this->recordEvent($kept, new Event(EventKind::SeatSigned, "sign_off:{$kept->id}:yes:{$yes}"), $actor, [], $entry);
        }
    }

    private static function hasYes(Moved $moved): bool
    {
        return array_filter($moved->events, static fn (SignOffEvent $event): bool => $event->isYes()) !== [];
    }

    /** @param  array<string, mixed>  $data */
    private function recordEvent(StoredSignOff $kept, Event $event, Actor $actor, array $data, int $entry): void
    {
        $type = $this->schemas->schema()->types[$kept->record_type];
        $this->save->recordEvent($type, $kept->record_id, static fn (): Event => $event, $actor, $data, null, $entry, $kept->rule_id);
    }

    /**
     * @param  list<Field>  $may
     * @param  array<array-key, mixed>  $corrections
     */
    private function correct(StoredSignOff $kept, array $may, int $person, array $corrections): void
    {
        $names = array_map(static fn (Field $field): string => $field->name, $may);
        foreach (array_keys($corrections) as $name) {
            if (! in_array($name, $names, true)) {
                $label = $this->type($kept)->field((string) $name)->label ?? (string) $name;
                throw new DomainError('not_allowed', Words::say(
                    '{label} is not yours to correct here.',
                    label: $label,
                ), RefusedFor::NotAllowed, [
                    ['at' => "/corrections/{$name}", 'code' => 'not_allowed', 'message' => Words::say(
                        '{label} is not yours to correct here.',
                        label: $label,
                    )],
                ]);
            }
        }
        $this->save->correct($this->type($kept), $kept->record_id, $corrections, new Actor($person), $kept->entry_id, PassesLock::Decider);
    }

    /** @throws NotDecided */
    private function clerkNow(StoredSignOff $kept): Clerk
    {
        $facts = $this->facts();
        $record = $facts->record($kept->record_type, $kept->record_id) ?? throw NotDecided::ended(SignOffStatus::Stopped);

        return $this->routes->clerk($kept, new View($record, $facts)) ?? throw NotDecided::ended(SignOffStatus::Stopped);
    }

    private function facts(): StoredFacts
    {
        return new StoredFacts($this->schemas, $this->clock->now(), $this->company->zone());
    }

    private function type(StoredSignOff $kept): RecordType
    {
        return $this->schemas->schema()->types[$kept->record_type];
    }

    private function locked(int $id): StoredSignOff
    {
        $kept = StoredSignOff::query()->find($id) ?? throw self::missing($id);
        // The record first, as every save does, so that the two never wait for each other.
        StoredRecord::rowsOf($kept->record_type)->where('id', $kept->record_id)->lockForUpdate()->first(['id']);

        return StoredSignOff::query()->with('seats')->lockForUpdate()->find($id) ?? throw self::missing($id);
    }

    public static function missing(int $id): DomainError
    {
        return DomainError::missing(Words::say('There is no sign-off {id}.', id: $id));
    }
}
