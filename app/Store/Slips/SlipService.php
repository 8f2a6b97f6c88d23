<?php

declare(strict_types=1);

namespace App\Store\Slips;

use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use App\Models\Slips\SlipTurnRow;
use App\Models\Slips\StoredSlip;
use App\Models\Timing\LineStatus;
use App\Models\Timing\ScheduledLine;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\People\PeopleStore;
use App\Store\Records\SaveRecord;
use App\Store\Records\StoredFacts;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use Closure;
use Illuminate\Database\Connection;
use VividLedger\Explain\SlipTold;
use VividLedger\Facts\View;
use VividLedger\Message\Address;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Display;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Schema\RecordType;
use VividLedger\SignOff\PassesLock;
use VividLedger\Slip\Answers;
use VividLedger\Slip\BadAnswers;
use VividLedger\Slip\NotTaken;
use VividLedger\Slip\Reach;
use VividLedger\Slip\SlipClerk;
use VividLedger\Slip\SlipEvent;
use VividLedger\Slip\SlipEventKind;
use VividLedger\Slip\SlipMoved;
use VividLedger\Slip\SlipStatus;
use VividLedger\Slip\TurnState;
use VividLedger\Words\Words;

/**
 * Where slips are answered, reminded of and passed on: each act is one transaction with its entry, the letters to whoever's turn it is,
 * and what the rules make of it. Two who answer at once come one after the other.
 */
final readonly class SlipService
{
    /** How long a link is good for where nothing else is said. */
    public const LINK_DAYS = 90;

    public function __construct(
        private Connection $db,
        private HouseClock $clock,
        private Company $company,
        private SchemaStore $schemas,
        private PeopleStore $names,
        private SaveRecord $save,
        private SlipLines $lines,
        private SlipRepository $keeper,
        private SlipPost $post,
    ) {
    }

    /**
     * @param  array<array-key, mixed>  $raw  by the place of the question; of a file its name
     * @param  Closure(RecordType, int, int): void  $besides  keeps what comes along, by record type, record and question
     *
     * @throws DomainError with what is wrong at which question, and when it cannot be answered any more
     */
    public function answer(SlipTurnRow $turn, array $raw, ?int $person, Closure $besides): StoredSlip
    {
        return $this->held($turn->slip_id, function (StoredSlip $kept) use ($turn, $raw, $person, $besides): void {
            $this->mustBeTheirs($kept, $turn);
            $record = $this->record($kept) ?? throw self::gone();
            $isFirst = $kept->status === SlipStatus::Waiting;
            $answers = $this->checked($kept, $raw);
            $display = new Display($this->names, $this->company->zone());
            $said = $answers->said($display);
            $kept->update(['given' => $answers->values, 'said' => $said]);
            SlipTurnRow::query()->whereKey($turn->id)->update(['draft' => null]);
            if ($isFirst) {
                $clerk = $this->clerk($kept, $record);
                $moved = $clerk === null ? null : $clerk->answered($kept->slip(), $answers->chosen());
                $slip = $moved->slip ?? $kept->slip()->ended(SlipStatus::Answered, $this->clock->now(), $answers->chosen());
                $this->keeper->keep($kept, $slip, null, $this->leadsTo($kept));
            }
            $actor = new Actor($person, CauseKind::Slip);
            $kind = $isFirst ? SlipEventKind::Answered : SlipEventKind::Corrected;
            $entry = $this->keeper->entry($kept, $actor, [new SlipEvent($kind, $turn->name)], $said);
            $this->write($kept, $answers, $record, $actor, $entry);
            $besides($this->type($kept), $kept->record_id, $entry);
            if ($isFirst) {
                $this->recordEvent($kept, EventKind::SlipAnswered, SlipTold::inOne($said), $actor, $entry);
            }
        });
    }

    /** Keeps what somebody has typed so far; it is seen by nobody who is asked after them. */
    public function draft(SlipTurnRow $turn, mixed $draft): void
    {
        $typed = array_filter(
            is_array($draft) ? array_slice($draft, 0, 60, true) : [],
            static fn (mixed $text): bool => is_string($text) && strlen($text) <= 20_000,
        );
        SlipTurnRow::query()->whereKey($turn->id)->where('state', TurnState::Waiting)->update(['draft' => json_encode($typed)]);
    }

    /** What has fallen due: a reminder, or somebody whose time has run out. */
    public function tend(int $id): void
    {
        $this->move($id, new Actor(null, CauseKind::Rule), static fn (SlipClerk $clerk, StoredSlip $kept): SlipMoved => $clerk->tend(
            $kept->slip(),
        ));
    }

    /** @throws DomainError when it has ended, or nobody is left on its list */
    public function passOn(int $id, int $person): StoredSlip
    {
        return $this->move($id, new Actor($person), static fn (SlipClerk $clerk, StoredSlip $kept): SlipMoved => $clerk->passOn(
            $kept->slip(),
        ));
    }

    /**
     * Somebody else is asked in the place of whoever's turn it is, because they have left.
     *
     * @throws DomainError when it has ended
     */
    public function handOver(int $id, Person $to, int $by): StoredSlip
    {
        $address = static fn (string $at): ?Address => $at === '' ? null : new Address($to->name, $at, $to->id);

        return $this->move($id, new Actor($by), static fn (SlipClerk $clerk, StoredSlip $kept): SlipMoved => $clerk->handOver(
            $kept->slip(), new Reach($address($to->email), $address($to->phone), "{$to->name} took over"),
        ));
    }

    /** @throws DomainError when it has ended */
    public function withdraw(int $id, int $person): StoredSlip
    {
        return $this->move($id, new Actor($person), static fn (SlipClerk $clerk, StoredSlip $kept): SlipMoved => $clerk->withdraw(
            $kept->slip(),
        ));
    }

    /**
     * Sends it again to whoever's turn it is, with a new link; the one they had is void.
     *
     * @throws DomainError when it has ended
     */
    public function again(int $id, int $person): StoredSlip
    {
        return $this->move($id, new Actor($person), static function (SlipClerk $clerk, StoredSlip $kept): SlipMoved {
            $slip = $kept->slip();
            $turn = $slip->turn() ?? throw NotTaken::ended($slip->status);
            $row = $kept->turns->last();
            $row?->update(['link' => $row->link + 1, 'token_hash' => null]);

            return new SlipMoved($slip, [new SlipEvent(SlipEventKind::SentAgain, $turn->name, channel: $clerk->channel($slip))]);
        });
    }

    /** Whether whoever answered may still say something else: no line has gone on since. */
    public function mayCorrect(StoredSlip $kept): bool
    {
        if ($kept->status !== SlipStatus::Answered || $this->clock->now() > $kept->started_at->modify('+'.self::LINK_DAYS.' days')) {
            return false;
        }

        return $kept->run_id === null || $kept->line_key === '' || ! $this->waits($kept);
    }

    /** Whether lines wait for the slip, or have: as soon as it is answered, they go on. */
    private function waits(StoredSlip $kept): bool
    {
        foreach ($this->lines->waits($kept) as $place => $waitsFor) {
            if ($waitsFor === $kept->line_key && ScheduledLine::query()->where('run_id', $kept->run_id)->where('place', $place)
                ->where('status', '!=', LineStatus::Held)->exists()) {
                return true;
            }
        }

        return false;
    }

    /** @param  Closure(SlipClerk, StoredSlip): SlipMoved  $act */
    private function move(int $id, Actor $actor, Closure $act): StoredSlip
    {
        return $this->held($id, function (StoredSlip $kept) use ($actor, $act): void {
            $record = $this->record($kept);
            $clerk = $record === null ? null : $this->clerk($kept, $record);
            if ($record === null || $clerk === null) {
                if ($kept->status === SlipStatus::Waiting) {
                    $this->keeper->end($kept, $actor);
                }

                return;
            }
            $moved = $act($clerk, $kept);
            if ($moved->isOvertaken) {
                $kept->refresh();
            } else {
                $this->keeper->keep($kept, $moved->slip, $clerk->wakesAt($moved->slip), $this->leadsTo($kept));
            }
            if ($moved->events === []) {
                return;
            }
            $entry = $this->keeper->entry($kept, $actor, $moved->events);
            $this->post->happened($kept, $moved->events, $this->record($kept) ?? $record, $entry);
            if (! $moved->isOvertaken && ! $moved->slip->isOpen()) {
                $this->recordEvent($kept, EventKind::SlipOver, $moved->slip->status->said(), $actor, $entry);
            }
        });
    }

    /** @param  Closure(StoredSlip): void  $act */
    private function held(int $id, Closure $act): StoredSlip
    {
        try {
            return $this->db->transaction(fn (): StoredSlip => $this->clock->freeze(function () use ($id, $act): StoredSlip {
                $kept = StoredSlip::query()->find($id) ?? throw self::missing($id);
                // The record first, as every save does, so that the two never wait for each other.
                StoredRecord::rowsOf($kept->record_type)->where('id', $kept->record_id)->lockForUpdate()->first(['id']);
                $kept = StoredSlip::query()->with('turns')->lockForUpdate()->find($id) ?? throw self::missing($id);
                $act($kept);

                return $kept;
            }));
        } catch (NotTaken $not) {
            throw new DomainError('ended', $not->getMessage(), RefusedFor::Conflict);
        }
    }

    /** @throws DomainError when the turn is past, unless they correct what they said */
    private function mustBeTheirs(StoredSlip $kept, SlipTurnRow $turn): void
    {
        $now = $kept->turns->find($turn->id);
        if ($now?->state === TurnState::Waiting || ($now?->state === TurnState::Answered && $this->mayCorrect($kept))) {
            return;
        }
        throw $now?->state === TurnState::PassedOn
            ? new DomainError(
                'ended',
                Words::say('Somebody else has been asked meanwhile. You need not answer any more.'),
                RefusedFor::Conflict,
            )
            : NotTaken::ended($kept->status);
    }

    /**
     * @param  array<array-key, mixed>  $raw
     *
     * @throws DomainError
     */
    private function checked(StoredSlip $kept, array $raw): Answers
    {
        try {
            return Answers::checked($this->lines->questions($kept), $raw);
        } catch (BadAnswers $bad) {
            $problems = [];
            foreach ($bad->problems as $place => [$code, $message]) {
                $problems[] = ['at' => "/answers/{$place}", 'code' => $code, 'message' => $message];
            }
            throw new DomainError('invalid_values', Words::say('Something has to be answered in another way.'), RefusedFor::Invalid,
                $problems);
        }
    }

    /** Answers to fields are written to their records, and checked there like any save. */
    private function write(StoredSlip $kept, Answers $answers, Record $record, Actor $actor, int $entry): void
    {
        foreach ($answers->fields() as $reference => $values) {
            $field = $this->type($kept)->field((string) $reference);
            $id = $field === null ? $record->id : $record->value($field->name);
            $type = $field === null ? $this->type($kept) : $this->schemas->schema()->type($field->target ?? '');
            if ($type === null || ! is_int($id)) {
                continue;
            }
            try {
                $this->save->correct($type, $id, $values, $actor, $entry, PassesLock::SlipAnswer);
            } catch (DomainError $refused) {
                throw new DomainError($refused->reason, $refused->getMessage(), $refused->for, array_map(
                    static fn (array $problem): array => ['at' => self::questionAt($answers, (string) $problem['at'])] + $problem,
                    $refused->problems,
                ));
            }
        }
    }

    /** The place of the question whose field a save complains of. */
    private static function questionAt(Answers $answers, string $at): string
    {
        foreach ($answers->questions as $place => $question) {
            if ($question->path !== null && str_ends_with($at, "/{$question->path->field->name}")) {
                return "/answers/{$place}";
            }
        }

        return '/answers';
    }

    private function recordEvent(StoredSlip $kept, EventKind $kind, string $text, Actor $actor, int $entry): void
    {
        $event = static fn (): Event => new Event($kind, "slip:{$kept->id}", $text);
        $this->save->recordEvent($this->type($kept), $kept->record_id, $event, $actor, [], null, $entry, $kept->rule_id);
    }

    private function clerk(StoredSlip $kept, Record $record): ?SlipClerk
    {
        $line = $this->lines->line($kept);
        $facts = $this->facts();

        return $line === null ? null : new SlipClerk($line->plan(), new View($record, $facts), $this->company->zone(), new SlipReassignment(
            line: $line, kept: $kept, save: $this->save, schemas: $this->schemas, facts: $this->facts(...), zone: $this->company->zone(),
        ));
    }

    private function leadsTo(StoredSlip $kept): string
    {
        return $this->lines->line($kept)?->plan()->next?->field()->target ?? '';
    }

    private function record(StoredSlip $kept): ?Record
    {
        return $this->facts()->record($kept->record_type, $kept->record_id);
    }

    private function facts(): StoredFacts
    {
        return new StoredFacts($this->schemas, $this->clock->now(), $this->company->zone());
    }

    private function type(StoredSlip $kept): RecordType
    {
        return $this->schemas->schema()->types[$kept->record_type];
    }

    private static function gone(): DomainError
    {
        return new DomainError('ended', Words::say('What this was about is gone. You need not answer any more.'), RefusedFor::Conflict);
    }

    public static function missing(int $id): DomainError
    {
        return DomainError::missing(Words::say('There is no slip {id}.', id: $id));
    }
}
