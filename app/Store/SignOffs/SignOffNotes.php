<?php

declare(strict_types=1);

namespace App\Store\SignOffs;

use App\Models\Outbound\StoredMessage;
use App\Models\People\Person;
use App\Models\SignOffs\SignOffSeat;
use App\Models\SignOffs\StoredSignOff;
use App\Store\Access\AccessScope;
use App\Store\Access\SeenTexts;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Inbound\NotTakenLetter;
use App\Store\Languages;
use App\Store\Outbound\Outbox;
use App\Store\Sql\RecordSql;
use App\Store\Types\SchemaStore;
use VividLedger\Message\Address;
use VividLedger\Message\Channel;
use VividLedger\Message\Message;
use VividLedger\Record\Language;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\SignOffAsked;
use VividLedger\SignOff\SeatState;
use VividLedger\SignOff\SignOffEvent;
use VividLedger\SignOff\SignOffEventKind;
use VividLedger\SignOff\SignOffStatus;
use VividLedger\Words\Words;

/** Tells people what is wanted of them: a note inside, and a letter from which they can decide. */
final readonly class SignOffNotes
{
    private const ASKED = [
        SignOffEventKind::Asked, SignOffEventKind::AskedAgain, SignOffEventKind::Reminded, SignOffEventKind::PassedOn,
        SignOffEventKind::Deputised, SignOffEventKind::CameBack, SignOffEventKind::HandedOver, SignOffEventKind::Rerouted,
    ];

    /** Of these somebody hears. */
    private const HEARD = [...self::ASKED, SignOffEventKind::AskedBack, SignOffEventKind::AnsweredBack];

    /** So many letters go to a seat in one round, the one that asks and those that say that an answer was not taken. */
    private const MOST_TOLD = 5;

    public function __construct(
        private Outbox $outbox,
        private SchemaStore $schemas,
        private HouseClock $clock,
        private CaseFacts $facts,
        private Languages $languages,
        private AccessScope $inSight,
    ) {
    }

    /** @param  list<array{int, SignOffAsked, int}>  $begun  id, what was asked for, and the number of the entry */
    public function begun(array $begun): void
    {
        foreach ($begun as [$id, $asked, $entry]) {
            $kept = StoredSignOff::query()->with('seats.person')->find($id);
            if ($kept !== null && $asked->moved->signOff->isOpen()) {
                $this->happened($kept, $asked->moved->events, $asked->record, $entry, $asked->givesTask());
            }
        }
    }

    /**
     * @param  list<SignOffEvent>  $events
     * @param  bool  $gives  whether those who are asked get a task, too
     */
    public function happened(StoredSignOff $kept, array $events, Record $record, int $entry, bool $gives): void
    {
        $isHeard = array_filter($events, static fn (SignOffEvent $event): bool => in_array($event->kind, self::HEARD, true));
        if ($isHeard === [] && ! $gives) {
            return;
        }
        $kept->unsetRelation('seats')->load('seats.person');
        $about = $this->about($record);
        $messages = [];
        foreach ($events as $event) {
            array_push($messages, ...match (true) {
                in_array($event->kind, self::ASKED, true) => $this->asked($kept, $event, $about),
                $event->kind === SignOffEventKind::AskedBack,
                $event->kind === SignOffEventKind::AnsweredBack => $this->spoken($kept, $event, $about),
                default => [],
            });
        }
        $now = $this->clock->now();
        $this->outbox->putOfSignOff($kept->id, array_map(
            static fn (array $one): array => [$one[0], $record, $kept->rule_id, $entry, $now, $one[1] ?? null],
            $messages,
        ));
        if ($gives) {
            SignOffTasks::give($kept, $about, $entry, $now);
        }
    }

    /** @return list<array{0: Message, 1?: SignOffSeat}> each with the seat that it lets decide */
    private function asked(StoredSignOff $kept, SignOffEvent $event, string $about): array
    {
        $seat = $kept->seats->first(
            static fn (SignOffSeat $seat): bool => $seat->person_id === $event->person && $seat->state === SeatState::Waiting,
        );
        if ($seat === null) {
            return [];
        }
        $person = $seat->person;

        return $this->languages->in($person->language ?? Words::OWN, fn (): array => $this->asking($kept, $seat, $event->kind, $about));
    }

    /** @return list<array{0: Message, 1?: SignOffSeat}> in the language of whoever is asked */
    private function asking(StoredSignOff $kept, SignOffSeat $seat, SignOffEventKind $kind, string $about): array
    {
        $person = $seat->person;
        $subject = $kind === SignOffEventKind::Reminded ? Words::say('Still waiting: your sign-off is wanted: {about}', about: $about)
            : Words::say('Your sign-off is wanted: {about}', about: $about);
        $why = (new SeenTexts($this->inSight->of($person)))->shown($kept->why, $kept->tells);
        $note = new Message(
            channel: Channel::App, to: [new Address($person->name, '', $person->id)], cc: [], replyTo: null, subject: $subject, html: '',
            text: $why, path: $person->name, missing: [], tells: $kept->tells,
        );
        if ($person->email === '') {
            return [[$note]];
        }
        $letter = new SignOffLetter($kept, $about, $why, $this->facts->of($kept, $person), $this->facts->isNew($kept));

        return [[$note], [new Message(
            channel: Channel::Email, to: [self::address($person)], cc: [], replyTo: null, subject: $subject, html: $letter->html(),
            text: $letter->text(), path: $person->name, missing: [], tells: $kept->tells,
        ), $seat]];
    }

    /** An answer by mail that could not be taken is answered by a letter, a few times: whoever never reads it may be a robot. */
    public function notTaken(SignOffSeat $seat, DomainError $why, string $said): void
    {
        [$kept, $person] = [$seat->signOff, $seat->person];
        $of = ['seat_id' => $seat->id, 'seat_round' => $seat->round];
        $told = StoredMessage::query()->where($of)->where('channel', Channel::Email)->count();
        $type = $this->schemas->schema()->type($kept->record_type);
        $record = $type === null ? null : RecordSql::record($type, $kept->record_id);
        if ($record === null || $person->email === '' || $told > self::MOST_TOLD) {
            return;
        }
        $message = $this->languages->in($person->language ?? Words::OWN, function () use ($kept, $person, $record, $why, $said): Message {
            $letter = new NotTakenLetter($this->about($record), $why, $said, $kept->status === SignOffStatus::Waiting);

            return new Message(
                channel: Channel::Email, to: [self::address($person)], cc: [], replyTo: null,
                subject: Words::say('Your answer was not taken: {about}', about: $this->about($record)), html: $letter->html(),
                text: $letter->text(), path: $person->name, missing: [],
            );
        });
        $this->outbox->putOfSignOff($kept->id, [
            [$message, $record, $kept->rule_id, $kept->entry_id, $this->clock->now(), $seat],
        ], "answer:{$seat->id}:{$told}");
    }

    /** @return list<array{Message}> a question that was asked back, or its answer */
    private function spoken(StoredSignOff $kept, SignOffEvent $event, string $about): array
    {
        $isAnswer = $event->kind === SignOffEventKind::AnsweredBack;
        $to = ! $isAnswer ? $kept->asker
            : $kept->seats->first(static fn (SignOffSeat $seat): bool => $seat->person_id === $event->other)?->person;
        $by = $kept->seats->first(static fn (SignOffSeat $seat): bool => $seat->person_id === $event->person)->person ?? $kept->asker;

        if ($to === null) {
            return [];
        }
        $subject = $this->languages->in($to->language ?? Words::OWN, static function () use ($by, $about, $isAnswer): string {
            $who = $by->name ?? Words::say('Somebody');

            return $isAnswer ? Words::say('{who} has answered about {about}', who: $who, about: $about)
                : Words::say('{who} asks about {about}', who: $who, about: $about);
        });

        return [[new Message(
            channel: Channel::App, to: [new Address($to->name, '', $to->id)], cc: [], replyTo: null, subject: $subject, html: '',
            text: $event->comment, path: $to->name, missing: [],
        )]];
    }

    private static function address(Person $person): Address
    {
        return new Address($person->name, $person->email, $person->id, null,
            Language::tryFrom($person->language ?? Words::OWN) ?? Language::English);
    }

    private function about(Record $record): string
    {
        $type = $this->schemas->schema()->types[$record->type];
        $title = $record->value($type->title);

        return "{$type->label} {$type->numberOf($record->id)}".(is_string($title) ? ", {$title}" : '');
    }
}
