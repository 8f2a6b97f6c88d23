<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\Entry;
use App\Models\SignOffSeat;
use App\Models\StoredRecord;
use App\Models\StoredSignOff;
use App\Store\Sql\Batch;
use Closure;
use Illuminate\Database\Connection;
use VividLedger\Explain\SignOffTold;
use VividLedger\Facts\View;
use VividLedger\Message\Address;
use VividLedger\Message\Channel;
use VividLedger\Message\Message;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Rule\Line\AsksSignOff;
use VividLedger\Schema\RecordType;
use VividLedger\SignOff\Answer;
use VividLedger\SignOff\Clerk;
use VividLedger\SignOff\Moved;
use VividLedger\SignOff\NotDecided;
use VividLedger\SignOff\SignOff;
use VividLedger\SignOff\SignOffEvent;
use VividLedger\SignOff\SignOffEventKind;
use VividLedger\SignOff\SignOffStatus;

/**
 * Where sign-offs are decided: each act is one transaction with its entry, the notes to whoever is asked, and what the rules make
 * of the end. Two who answer at once come one after the other.
 */
final readonly class SignOffDesk
{
    public function __construct(
        private Connection $db,
        private HouseClock $clock,
        private Company $company,
        private SchemaStore $schemas,
        private StoredRuleBook $rules,
        private SaveRecord $save,
        private Outbox $outbox,
    ) {
    }

    /** @throws Refused when it has ended, when the person is not being asked, and when a no comes without its reason */
    public function answer(int $id, int $person, Answer $answer, string $comment): StoredSignOff
    {
        return $this->move($id, new Actor($person), static fn (Clerk $clerk, StoredSignOff $kept): Moved => $clerk->answer(
            $kept->signOff(),
            $person,
            $answer,
            $comment,
        ));
    }

    /** @throws Refused when it has ended, and when somebody else asked for it */
    public function withdraw(int $id, int $person, bool $mayAny): StoredSignOff
    {
        return $this->move($id, new Actor($person), static function (Clerk $clerk, StoredSignOff $kept) use ($person, $mayAny): Moved {
            if ($kept->asker_id !== $person && ! $mayAny) {
                throw new Refused('not_allowed', 'Only whoever asked for it can withdraw it.', RefusedFor::NotAllowed);
            }

            return $clerk->withdraw($kept->signOff());
        });
    }

    /** What has fallen due: reminders, and people whose time has run out. */
    public function tend(int $id): StoredSignOff
    {
        return $this->move($id, new Actor(null, CauseKind::Rule), static fn (Clerk $clerk, StoredSignOff $kept): Moved => $clerk->tend(
            $kept->signOff(),
        ));
    }

    /** @param  Closure(Clerk, StoredSignOff): Moved  $act */
    private function move(int $id, Actor $actor, Closure $act): StoredSignOff
    {
        try {
            $isGone = false;
            $kept = $this->db->transaction(function () use ($id, $actor, $act, &$isGone): StoredSignOff {
                $kept = $this->locked($id);
                $type = $this->schemas->schema()->types[$kept->record_type];
                $facts = new StoredFacts($this->schemas, $this->clock->now(), $this->company->zone());
                $record = $facts->record($kept->record_type, $kept->record_id);
                $clerk = $record === null ? null : $this->clerk($kept, new View($record, $facts));
                if ($record === null || $clerk === null) {
                    $isGone = true;
                    $this->end($kept, $actor);

                    return $kept;
                }
                $moved = $act($clerk, $kept);
                $this->keep($kept, $moved->signOff, $clerk->wakesAt($moved->signOff));
                if ($moved->events !== []) {
                    $this->tell($kept, $moved, $record, $type, $facts, $actor);
                }

                return $kept;
            });
        } catch (NotDecided $not) {
            throw new Refused($not->reason, $not->getMessage(), match ($not->reason) {
                'no_comment' => RefusedFor::Invalid,
                'not_asked' => RefusedFor::NotAllowed,
                default => RefusedFor::Conflict,
            });
        }
        // That it has ended is kept; what was said was not taken all the same.
        if ($isGone && $actor->personId !== null) {
            throw new Refused('ended', 'What it was about is gone, so it has ended undecided.', RefusedFor::Conflict);
        }

        return $kept;
    }

    /** The entry, the notes to those who are asked, and the end as an event that rules and waiting lines answer. */
    private function tell(StoredSignOff $kept, Moved $moved, Record $record, RecordType $type, StoredFacts $facts, Actor $actor): void
    {
        $entry = $this->entry($kept, $actor, SignOffTold::of($moved->events));
        $asked = array_filter($moved->events, static fn (SignOffEvent $event): bool => in_array($event->kind, [
            SignOffEventKind::Asked, SignOffEventKind::AskedAgain, SignOffEventKind::Reminded, SignOffEventKind::PassedOn,
        ], true));
        $notes = [];
        foreach ($asked as $event) {
            $person = $event->person === null ? null : $facts->person($event->person);
            if ($person !== null) {
                $subject = "Your sign-off is wanted: {$type->label} {$type->numberOf($record->id)}";
                $to = [new Address($person->name, '', $person->id)];
                $notes[] = [
                    new Message(Channel::App, $to, [], null, $subject, '', $kept->why, $person->name, []), $record, $kept->rule_id, $entry,
                    $this->clock->now(),
                ];
            }
        }
        $this->outbox->put($notes);
        if (! $moved->signOff->isOpen()) {
            $status = $moved->signOff->status->said();
            $event = new Event(EventKind::SignedOff, "sign_off:{$kept->id}", $status);
            $data = ['text' => $status];
            $this->save->happen($type, $record->id, static fn (): Event => $event, $actor, $data, null, $entry, $kept->rule_id);
        }
    }

    /** Keeps it as it stands after something was done to it. */
    private function keep(StoredSignOff $kept, SignOff $signOff, ?\DateTimeImmutable $wakes): void
    {
        $kept->update(StoredSignOff::standing($signOff, $wakes));
        $rows = [];
        foreach ($signOff->seats as $place => $seat) {
            $rows[] = SignOffSeat::row($kept->id, $place, $seat);
        }
        Batch::insert(SignOffSeat::class, $rows, ['due_at', 'asked_at', 'round', 'reminded', 'state', 'at', 'comment', 'by_itself']);
        $kept->unsetRelation('seats');
    }

    /** Its record or its page is gone, so nobody can decide it any more. */
    private function end(StoredSignOff $kept, Actor $actor): void
    {
        if ($kept->status !== SignOffStatus::Waiting) {
            return;
        }
        $ended = $kept->signOff()->ended(SignOffStatus::Stopped, $this->clock->now());
        $this->keep($kept, $ended, null);
        $this->entry($kept, $actor, SignOffTold::of([
            new SignOffEvent(SignOffEventKind::Ended, $ended->step, status: SignOffStatus::Stopped),
        ]));
    }

    /** @param  array<string, mixed>  $data */
    private function entry(StoredSignOff $kept, Actor $actor, array $data): int
    {
        return Batch::insertForIds(Entry::class, [Entry::row('sign_off', $this->clock->now(), $data, [
            'actor_id' => $actor->personId, 'via' => $actor->via, 'record_type' => $kept->record_type, 'record_id' => $kept->record_id,
            'rule_id' => $kept->rule_id, 'page' => $kept->page, 'cause_id' => $kept->entry_id,
        ])])[0];
    }

    private function clerk(StoredSignOff $kept, View $view): ?Clerk
    {
        $line = $this->rules->page($kept->rule_id, $kept->page)?->line($kept->place)?->bare();

        return $line instanceof AsksSignOff ? new Clerk($line->route(), $view, $this->company->zone()) : null;
    }

    private function locked(int $id): StoredSignOff
    {
        $kept = StoredSignOff::query()->find($id) ?? throw self::missing($id);
        // The record first, as every save does, so that the two never wait for each other.
        StoredRecord::rowsOf($kept->record_type)->where('id', $kept->record_id)->lockForUpdate()->first(['id']);

        return StoredSignOff::query()->with('seats')->lockForUpdate()->find($id) ?? throw self::missing($id);
    }

    public static function missing(int $id): Refused
    {
        return new Refused('not_found', "There is no sign-off {$id}.", RefusedFor::Missing);
    }
}
