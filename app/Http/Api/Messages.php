<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Shape\MessageShape;
use App\Store\Columns;
use App\Store\PeopleStore;
use App\Store\SchemaStore;
use Illuminate\Database\Connection;

/** Reads messages, with the names of all they mention. */
final readonly class Messages
{
    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private PeopleStore $names,
    ) {
    }

    /** @return list<MessageShape> those of a record's account, its contacts' included, the newest first */
    public function ofRecord(string $type, int $id, int $limit = 50): array
    {
        return $this->read(
            '(m.record_type = ? AND m.record_id = ?) OR m.id IN (SELECT a.message_id FROM message_accounts a WHERE a.record_type = ? AND a.record_id = ?)',
            [$type, $id, $type, $id], $limit,
        );
    }

    /** @return list<MessageShape> notes in the application for a person */
    public function notes(int $person, int $limit): array
    {
        return $this->read("m.person_id = ? AND m.channel = 'app'", [$person], $limit);
    }

    /**
     * @param  ?string  $status  null for all
     * @param  ?int  $before  only those with a lower id, the highest first
     * @param  ?int  $after  only those with a higher id, the lowest first
     * @return list<MessageShape>
     */
    public function inStatus(?string $status, ?int $before, ?int $after, int $limit): array
    {
        $where = ($status === null ? 'TRUE' : 'm.status = ?').' AND '.($after === null ? 'm.id < ?' : 'm.id > ?');

        return $this->read($where, [...($status === null ? [] : [$status]), $after ?? $before ?? PHP_INT_MAX], $limit, $after !== null);
    }

    public function one(int $id): ?MessageShape
    {
        return $this->read('m.id = ?', [$id], 1)[0] ?? null;
    }

    /**
     * @param  list<string|int>  $bindings
     * @return list<MessageShape>
     */
    private function read(string $where, array $bindings, int $limit, bool $oldestFirst = false): array
    {
        $direction = $oldestFirst ? 'ASC' : 'DESC';
        $rows = $this->db->select(
            "SELECT m.*, r.name AS rule_name FROM messages m LEFT JOIN rules r ON r.id = m.rule_id WHERE {$where} ORDER BY m.id {$direction} LIMIT {$limit}",
            $bindings,
        );
        $ids = [];
        foreach ($rows as $row) {
            $ids[$row->record_type][] = (int) $row->record_id;
        }
        foreach ($ids as $type => $recordIds) {
            $this->names->rememberTitles($type, $recordIds);
        }

        return array_map($this->shape(...), $rows);
    }

    private function shape(object $row): MessageShape
    {
        $recipients = json_decode($row->recipients, true, 16, JSON_THROW_ON_ERROR);
        $said = static fn (array $one): string => $one['address'] === '' || $one['address'] === $one['name'] ? $one['name'] : "{$one['name']} <{$one['address']}>";
        // A list is about many records, and stands on none.
        $number = (int) $row->record_id === 0 ? '' : ($this->schemas->schema()->type($row->record_type)?->numberOf((int) $row->record_id) ?? '');

        return new MessageShape(
            (int) $row->id, $row->channel, $row->status, $row->record_type, (int) $row->record_id, $number, $this->names->title($row->record_type, (int) $row->record_id) ?? $number,
            $row->rule_id === null ? null : (int) $row->rule_id, $row->rule_name, (int) $row->entry_id,
            array_map($said, $recipients['to']), array_map($said, $recipients['cc']), $recipients['replyTo'] === null ? null : $said($recipients['replyTo']),
            $row->subject, $row->html, $row->text, (string) Columns::iso($row->created_at), Columns::iso($row->done_at), (int) $row->tries, $row->trouble,
        );
    }
}
