<?php

declare(strict_types=1);

namespace Bench;

use App\Models\People\Person;
use App\Store\Ledger\Sealer;
use App\Store\Ledger\Verifier;
use App\Store\Types\TypeRepository;
use Illuminate\Database\Connection;

/** What running a house costs: the ledger is sealed and verified, and a field is added to a type with very many records. */
final class HouseBench
{
    private const ENTRIES = 200_000;

    private const ROWS = 1_000_000;

    public static function seals(): void
    {
        $db = app(Connection::class);
        $db->statement(
            "INSERT INTO entries (kind, at, actor_id, via, record_type, record_id, version, data) SELECT 'changed', "
                ."'2026-11-24 09:00:00', 6, 'person', 'ticket', seq, 2, CONCAT('{\"title\": \"Nr ', seq, '\"}') FROM seq_1_to_"
                .self::ENTRIES,
        );
        $db->statement(
            'INSERT INTO field_history (entry_id, record_type, record_id, field, `before`, `after`) SELECT id, record_type, record_id, '
                ."'status', '\"open\"', '\"waiting\"' FROM entries WHERE kind = 'changed'",
        );
        $last = (int) $db->scalar('SELECT MAX(id) FROM entries');
        $from = hrtime(true);
        for ($sealer = app(Sealer::class); $sealer->seal($last) > 0;);
        Figures::one('ledger: so many entries sealed a second', self::ENTRIES / ((hrtime(true) - $from) / 1e9), '/s', 'off the hot path');
        $verifier = app(Verifier::class);
        $from = hrtime(true);
        $verifier->verify() || throw new \LogicException($verifier->findings[0] ?? '');
        $seconds = (hrtime(true) - $from) / 1e9;
        $pdo = $db->getPdo();
        $from = hrtime(true);
        for ($after = 0; $after < $last; $after += 4000) {
            $pdo->query("SELECT e.*, s.hash FROM entries e LEFT JOIN entry_seals s ON s.entry_id = e.id WHERE e.id > {$after} AND e.id <= "
                .($after + 4000).' ORDER BY e.id')->fetchAll(\PDO::FETCH_NUM);
            $pdo->query("SELECT * FROM field_history WHERE entry_id > {$after} AND entry_id <= ".($after + 4000).' ORDER BY entry_id, id')
                ->fetchAll(\PDO::FETCH_NUM);
        }
        $floor = (hrtime(true) - $from) / 1e9;
        Figures::pair('ledger: 200,000 entries verified', $seconds, 'reading the same rows', $floor, 's', 2);
        Figures::one('ledger: so many verified a second', self::ENTRIES / $seconds, '/s', 'at least 50,000');
    }

    public static function field(): void
    {
        $db = app(Connection::class);
        $by = (int) Person::query()->where('role', 'administrator')->value('id');
        $db->statement(
            "INSERT INTO records_partner (id, version, name, created_at, updated_at) SELECT seq, 1, CONCAT('Partner ', seq), NOW(), NOW() "
                .'FROM seq_1_to_'.self::ROWS,
        );
        foreach (['text' => ['Remark', 'VARCHAR(190)', ''], 'date' => ['Looked at on', 'DATE', 'ADD INDEX (plain)']] as $type => $made) {
            [$label, $column, $index] = $made;
            $from = hrtime(true);
            $name = app(TypeRepository::class)->addField('partner', ['label' => $label, 'type' => $type], $by);
            $seconds = (hrtime(true) - $from) / 1e9;
            $db->statement("ALTER TABLE records_partner DROP COLUMN {$name}");
            $from = hrtime(true);
            $db->statement("ALTER TABLE records_partner ADD COLUMN plain {$column} NULL");
            $index === '' || $db->statement("ALTER TABLE records_partner {$index}");
            $floor = (hrtime(true) - $from) / 1e9;
            $db->statement('ALTER TABLE records_partner DROP COLUMN plain');
            $what = "a {$type} field added to a type with a million records";
            Figures::pair($what, $seconds, 'a plain ALTER of the same table', max(0.001, $floor), 's', 5);
        }
    }
}
