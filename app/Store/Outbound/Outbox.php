<?php

declare(strict_types=1);

namespace App\Store\Outbound;

use App\Models\Casts\Lines;
use App\Models\Columns;
use App\Models\Events\MessagesWait;
use App\Models\Ledger\Entry;
use App\Models\Outbound\AddressMark;
use App\Models\Outbound\MessageAccount;
use App\Models\Outbound\MessageAddress;
use App\Models\Outbound\MessageStatus;
use App\Models\Outbound\StoredMessage;
use App\Models\SignOffs\SignOffSeat;
use App\Models\Slips\SlipTurnRow;
use App\Store\Sql\Batch;
use VividLedger\Message\Address;
use VividLedger\Message\Channel;
use VividLedger\Message\Message;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Record;

/** Messages on their way out. A row commits with the firing that caused it; what leaves the house is sent afterwards, by a worker. */
final readonly class Outbox
{
    private const ABOUT_NOTHING = [
        'sign_off_id' => null, 'seat_id' => null, 'seat_round' => null, 'slip_turn_id' => null, 'slip_link' => null,
    ];

    /** @param  list<array{Message, Record, int, int, \DateTimeImmutable}>  $messages  each with its record, rule, entry and moment */
    public function put(array $messages): void
    {
        $this->take($messages, 'message');
    }

    /**
     * Letters and notes about a sign-off: no rule wrote them, so no limit of a rule counts them and they wait for no reply.
     *
     * @param  list<array{Message, Record, int, int, \DateTimeImmutable, ?SignOffSeat}>  $messages  each with the seat that it lets decide
     *     behind the rest
     * @param  string  $of  what names these among all messages of their entries
     */
    public function putOfSignOff(int $signOff, array $messages, string $of = ''): void
    {
        $this->take(
            array_map(static fn (array $one): array => array_slice($one, 0, 5), $messages),
            "sign_off:{$signOff}{$of}",
            array_map(static fn (array $one): array => [
                'sign_off_id' => $signOff, 'seat_id' => $one[5]?->id, 'seat_round' => $one[5]?->round,
            ], $messages),
            false,
        );
    }

    /**
     * What brings a slip to somebody: the line of a rule wants it, so limits count it.
     *
     * @param  list<array{Message, Record, int, int, \DateTimeImmutable, SlipTurnRow}>  $messages  each with its turn behind the rest
     * @param  string  $of  what names these among all messages of their entries
     */
    public function putOfSlips(array $messages, string $of): void
    {
        $this->take(
            array_map(static fn (array $one): array => array_slice($one, 0, 5), $messages),
            "slip:{$of}",
            array_map(static fn (array $one): array => ['slip_turn_id' => $one[5]->id, 'slip_link' => $one[5]->link], $messages),
        );
    }

    /**
     * @param  list<array{Message, Record, int, int, \DateTimeImmutable}>  $messages
     * @param  string  $of  what names these among all messages of their entries
     * @param  list<array<string, ?int>>  $about  columns of what each is about besides the record
     * @param  bool  $counts  whether limits count them, and they wait for a reply
     */
    private function take(array $messages, string $of, array $about = [], bool $counts = true): void
    {
        if ($messages === []) {
            return;
        }
        $rows = [];
        $marks = self::marks($messages);
        $stopped = [];
        foreach ($messages as $index => [$message, $record, $rule, $entry, $at]) {
            $inside = $message->channel === Channel::App;
            $isChase = $message->channel === Channel::Email && $about === [] && ($message->to[0]->record ?? null) !== null;
            $stops = $this->stopped($message, $marks, $isChase);
            if ($stops !== '') {
                $stopped[$index] = $stops;
            }
            $moment = Columns::moment($at);
            $rows[] = [
                // Nobody guesses the id of a letter who has not got it: a report that it bounced is believed by it.
                'key' => substr(hash_hmac('sha256', "{$of}:{$entry}:{$index}", (string) config('app.key')), 0, 40),
                'channel' => $message->channel,
                'record_type' => $record->type, 'record_id' => $record->id, 'rule_id' => $rule, 'entry_id' => $entry,
                ...array_replace(self::ABOUT_NOTHING, $about[$index] ?? []),
                'person_id' => $inside ? ($message->to[0]->personId ?? null) : null,
                'recipients' => Columns::json([
                    'to' => array_map(self::address(...), $message->to), 'cc' => array_map(self::address(...), $message->cc),
                    'replyTo' => $message->replyTo === null ? null : self::address($message->replyTo),
                ]),
                'subject' => $message->subject, 'html' => $message->html, 'text' => $message->text, 'tells' => Lines::text($message->tells),
                // A note inside has arrived as soon as it is written.
                'status' => $stops !== '' ? MessageStatus::Cancelled : ($inside ? MessageStatus::Delivered : MessageStatus::Waiting),
                'created_at' => $moment, 'may_unsubscribe' => $isChase && count($message->to) === 1, 'trouble' => $stops,
                'next_try_at' => $inside || $stops !== '' ? null : $moment, 'done_at' => $inside || $stops !== '' ? $moment : null,
            ];
        }
        $leaves = false;
        $accounts = [];
        $addresses = [];
        foreach (Batch::insertForIds(StoredMessage::class, $rows) as $index => $id) {
            [$message, $record] = $messages[$index];
            if (isset($stopped[$index])) {
                continue;
            }
            $leaves = $leaves || $message->channel !== Channel::App;
            foreach ($counts ? [...$message->to, ...$message->cc] : [] as $address) {
                $key = MessageAddress::key($address);
                $addresses["{$id}:{$key}"] = ['address' => $key, 'at' => $rows[$index]['created_at'], 'message_id' => $id];
                if ($address->record !== null && $address->record !== [$record->type, $record->id]) {
                    [$type, $about] = $address->record;
                    $accounts["{$id}:{$type}:{$about}"] = ['message_id' => $id, 'record_type' => $type, 'record_id' => $about];
                }
            }
        }
        self::tell($stopped, $messages);
        Batch::insert(MessageAddress::class, array_values($addresses));
        Batch::insert(MessageAccount::class, array_values($accounts));
        if ($leaves) {
            event(new MessagesWait);
        }
    }

    /**
     * Marks of the addresses that mail would go to, asked once for all of them.
     *
     * @param  list<array{Message, Record, int, int, \DateTimeImmutable}>  $messages
     * @return array<string, list<string>>
     */
    private static function marks(array $messages): array
    {
        $addresses = [];
        foreach ($messages as [$message]) {
            foreach ($message->channel === Channel::Email ? [...$message->to, ...$message->cc] : [] as $address) {
                $addresses[] = $address->address;
            }
        }

        return AddressMark::among($addresses);
    }

    /**
     * Why a letter does not leave; empty where it does.
     *
     * @param  array<string, list<string>>  $marks
     * @param  bool  $isChase  whether whoever gets it may have said that they want no more of these
     */
    private function stopped(Message $message, array $marks, bool $isChase): string
    {
        foreach ($message->channel === Channel::Email && $marks !== [] ? $message->to : [] as $address) {
            $kinds = $marks[mb_strtolower($address->address)] ?? [];
            if (in_array(AddressMark::BOUNCES, $kinds, true)) {
                return "Letters to {$address->address} bounce.";
            }
            if ($isChase && in_array(AddressMark::UNSUBSCRIBED, $kinds, true)) {
                return "{$address->address} wants no more of these letters.";
            }
        }

        return '';
    }

    /**
     * @param  array<int, string>  $stopped  why, by the place of the message
     * @param  list<array{Message, Record, int, int, \DateTimeImmutable}>  $messages
     */
    private static function tell(array $stopped, array $messages): void
    {
        $entries = [];
        foreach ($stopped as $index => $why) {
            [$message, $record, $rule, $entry, $at] = $messages[$index];
            $entries[] = Entry::row('mail_stopped', $at, ['subject' => $message->subject, 'why' => $why], [
                'via' => CauseKind::Rule, 'record_type' => $record->type, 'record_id' => $record->id, 'rule_id' => $rule,
                'cause_id' => $entry,
            ]);
        }
        Batch::insert(Entry::class, $entries);
    }

    /** @return array{name: string, address: string, language: string, record?: array{string, int}} with the record of a contact */
    private static function address(Address $address): array
    {
        return ['name' => $address->name, 'address' => $address->address, 'language' => $address->language->value]
            + ($address->record === null ? [] : ['record' => $address->record]);
    }
}
