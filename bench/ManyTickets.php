<?php

declare(strict_types=1);

namespace Bench;

use App\Models\Records\StoredRecord;
use App\Store\Lists\FoundTexts;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Connection;

/** A company with many tickets, written straight into its tables, with what finds them by their words. */
final class ManyTickets
{
    public static function fill(Connection $db, int $tickets): void
    {
        $db->statement("INSERT INTO records_customer (id, name, plan, created_at, updated_at) SELECT seq, CONCAT('Customer ', seq), "
            ."ELT(1 + seq % 3, 'basic', 'care', 'full_care'), NOW(), NOW() FROM seq_1_to_400");
        $db->statement(
            'INSERT INTO records_ticket (id, subject, customer, priority, status, owner, due, under_care, escalate, created_at, '
            .'updated_at, _stage_since) SELECT seq, '
            ."CONCAT(ELT(1 + seq % 5, 'Ficus', 'Palm', 'Monstera', 'Moss', 'Ivy'), ' in lobby', seq % 9973), "
            ."1 + seq % 400, ELT(1 + seq % 4, 'low', 'normal', 'high', 'urgent'), ELT(1 + seq % 6, 'open', 'waiting', 'closed', 'closed', "
            ."'closed', 'closed'), 1 + seq % 40, DATE('2025-01-01') + INTERVAL seq % 700 DAY, 0, 0, NOW(), NOW(), NOW() "
            ."FROM seq_1_to_{$tickets}",
        );
        foreach (['customer' => 400, 'ticket' => $tickets] as $type => $last) {
            $db->statement('ALTER SEQUENCE `'.StoredRecord::sequenceOf($type).'` RESTART '.($last + 1));
        }
        $db->statement(FoundTexts::fill(app(SchemaStore::class)->schema()->types['ticket']), ['ticket']);
        while (app(FoundTexts::class)->takeUpWords() > 0) {
        }
        $db->statement('ANALYZE TABLE records_ticket, found_texts');
    }

    /** A few thousand tasks on them, for everybody, some of them late. */
    public static function tasks(Connection $db): void
    {
        $db->statement(
            'INSERT INTO tasks (title, notes, priority, record_type, record_id, assignee_id, entry_id, status, given_at, due_at, line_key) '
            ."SELECT CONCAT('Ring ', seq), '', 'normal', 'ticket', seq, 1 + seq % 40, 1, 'open', NOW(), "
            ."NOW() - INTERVAL 100 HOUR + INTERVAL seq % 400 HOUR, '' FROM seq_1_to_2000",
        );
        $db->statement('ANALYZE TABLE tasks');
    }
}
