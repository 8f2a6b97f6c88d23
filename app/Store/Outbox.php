<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Message\Address;
use VividLedger\Message\Channel;
use VividLedger\Message\Message;
use VividLedger\Record\Record;

/** Messages on their way out. A row commits with the firing that caused it; what leaves the house is sent afterwards, by a worker. */
final readonly class Outbox
{
    public function __construct(private Connection $db)
    {
    }

    /** @param  list<array{Message, Record, int, int, \DateTimeImmutable}>  $messages  each with its record, rule, entry and moment */
    public function put(array $messages): void
    {
        if ($messages === []) {
            return;
        }
        $rows = [];
        foreach ($messages as $index => [$message, $record, $rule, $entry, $at]) {
            $inside = $message->channel === Channel::App;
            $moment = Columns::moment($at);
            $rows[] = [
                'key' => substr(hash('sha256', "message:{$entry}:{$index}"), 0, 40), 'channel' => $message->channel->value, 'record_type' => $record->type, 'record_id' => $record->id,
                'rule_id' => $rule, 'entry_id' => $entry, 'person_id' => $inside ? ($message->to[0]->personId ?? null) : null,
                'recipients' => json_encode(['to' => array_map(self::address(...), $message->to), 'cc' => array_map(self::address(...), $message->cc), 'replyTo' => $message->replyTo === null ? null : self::address($message->replyTo)], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
                'subject' => $message->subject, 'html' => $message->html, 'text' => $message->text,
                // A note inside has arrived as soon as it is written.
                'status' => $inside ? 'delivered' : 'waiting', 'created_at' => $moment, 'next_try_at' => $inside ? null : $moment, 'done_at' => $inside ? $moment : null,
            ];
        }
        $accounts = [];
        $addresses = [];
        foreach (Batch::insertForIds($this->db, 'messages', $rows) as $index => $id) {
            [$message, $record] = $messages[$index];
            foreach ([...$message->to, ...$message->cc] as $address) {
                $key = mb_substr($address->key(), 0, 190);
                $addresses["{$id}:{$key}"] = ['address' => $key, 'at' => $rows[$index]['created_at'], 'message_id' => $id];
                if ($address->record !== null && $address->record !== [$record->type, $record->id]) {
                    $accounts["{$id}:{$address->record[0]}:{$address->record[1]}"] = ['message_id' => $id, 'record_type' => $address->record[0], 'record_id' => $address->record[1]];
                }
            }
        }
        Batch::insert($this->db, 'message_addresses', array_values($addresses));
        Batch::insert($this->db, 'message_accounts', array_values($accounts));
    }

    /** @return array{name: string, address: string} */
    private static function address(Address $address): array
    {
        return ['name' => $address->name, 'address' => $address->address];
    }
}
