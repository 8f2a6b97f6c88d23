<?php

declare(strict_types=1);

namespace App\Store;

use App\Work\HouseClock;
use Illuminate\Database\Connection;
use VividLedger\Condition\Condition;
use VividLedger\People\Directory;
use VividLedger\Rule\Ladder\Ladders;
use VividLedger\Rule\Reading\ConditionReader;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Reading\Reads;
use VividLedger\Rule\Reading\WithoutNamed;
use VividLedger\Schema\RecordType;
use VividLedger\Template\RichText;

/** What the company keeps once and rules use by name: conditions and letters. */
final readonly class KeptStore
{
    private const NAME_LENGTH = 60;

    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private HouseClock $clock,
        private Company $company,
        private Directory $directory,
        private RuleStore $rules,
    ) {
    }

    /**
     * Keeps a condition under a name: a new one, or the next version of one.
     *
     * @param  array<mixed>  $file  the condition as a rule file writes it
     * @param  ?int  $version  of the one being changed, as the person saw it
     * @return int its id
     *
     * @throws Refused with every problem at its word
     */
    public function keepCondition(RecordType $type, ?int $id, ?int $version, string $name, array $file): int
    {
        $name = $this->named($name);
        $context = $this->context($type);
        $reads = new Reads;
        $condition = ConditionReader::read($context, new Node($file, '/file', $reads));
        array_push($context->sheet->problems, ...$reads->unknown($file, $context->sheet->problems, '/file'));
        if ($condition === null || $context->sheet->problems !== []) {
            throw new Refused('unfinished_condition', 'The condition is not finished. '.($context->sheet->problems[0]->message ?? ''), 422, RuleStore::listed($context->sheet->problems));
        }
        $json = json_encode($file, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);

        return $this->db->transaction(function () use ($type, $id, $version, $name, $json): int {
            $this->mustBeFree('named_conditions', 'record_type = ? AND name = ?', [$type->name, $name], $id);
            if ($id === null) {
                [$id] = Batch::insertForIds($this->db, 'named_conditions', [['record_type' => $type->name, 'name' => $name, 'file' => $json]]);
            } else {
                $before = $this->mustBeCurrent('named_conditions', $id, $version);
                $this->mustKeepName($before->name, $name, $this->usersOf('named', $before->name));
                $this->db->update('UPDATE named_conditions SET name = ?, file = ?, version = version + 1 WHERE id = ?', [$name, $json, $id]);
            }
            $this->changed('named', $name);

            return $id;
        });
    }

    /** @throws Refused while rules use it */
    public function dropCondition(int $id): void
    {
        $row = $this->db->selectOne('SELECT name FROM named_conditions WHERE id = ?', [$id]) ?? throw new Refused('not_found', 'There is no such condition.', 404);
        $this->mustBeUnused($row->name, $this->usersOf('named', $row->name));
        $this->db->delete('DELETE FROM named_conditions WHERE id = ?', [$id]);
    }

    /**
     * Keeps a letter: a new one, or the next version of one. Earlier versions stay, and so does what was sent.
     *
     * @throws Refused
     */
    public function keepLetter(RecordType $type, ?int $id, ?int $version, string $name, string $subject, string $body, int $by): int
    {
        $name = $this->named($name);
        $context = $this->context($type);
        $clean = RichText::clean($body);
        if (\VividLedger\Message\Letter::read($context, new Node($subject, '/subject'), new Node($clean, '/body'), true) === null) {
            throw new Refused('unfinished_letter', $context->sheet->problems[0]->message ?? 'The letter is not finished.', 422, RuleStore::listed($context->sheet->problems));
        }

        return $this->db->transaction(function () use ($type, $id, $version, $name, $subject, $clean, $by): int {
            $this->mustBeFree('letters', 'name = ?', [$name], $id);
            $number = 1;
            if ($id === null) {
                [$id] = Batch::insertForIds($this->db, 'letters', [['record_type' => $type->name, 'name' => $name]]);
            } else {
                $before = $this->mustBeCurrent('letters', $id, $version);
                $this->mustKeepName($before->name, $name, $this->usersOf('letter', $before->name));
                $number = (int) $before->version + 1;
                $this->db->update('UPDATE letters SET name = ?, version = ? WHERE id = ?', [$name, $number, $id]);
            }
            Batch::insert($this->db, 'letter_versions', [['letter_id' => $id, 'number' => $number, 'subject' => trim($subject), 'body' => $clean, 'at' => Columns::moment($this->clock->now()), 'by_id' => $by]]);
            $this->changed('letter', $name);

            return $id;
        });
    }

    /** @throws Refused while rules use it */
    public function dropLetter(int $id): void
    {
        $row = $this->db->selectOne('SELECT name FROM letters WHERE id = ?', [$id]) ?? throw new Refused('not_found', 'There is no such letter.', 404);
        $this->mustBeUnused($row->name, $this->usersOf('letter', $row->name));
        $this->db->delete('DELETE FROM letters WHERE id = ?', [$id]);
    }

    /**
     * Keeps a ladder under a name: a new one, or the next version of one.
     *
     * @param  array<mixed>  $rungs  as a rule file writes them
     */
    public function keepLadder(?int $id, ?int $version, string $name, array $rungs): int
    {
        $name = $this->named($name);
        $types = $this->schemas->schema()->types;
        $context = $this->context($types[array_key_first($types) ?? ''] ?? throw new Refused('unknown_type', 'There is no record type yet.', 409));
        $reads = new Reads;
        $ladder = Ladders::rungs($context, new Node($rungs, '/rungs', $reads), $name);
        array_push($context->sheet->problems, ...$reads->unknown($rungs, $context->sheet->problems, '/rungs'));
        if ($ladder === null || $context->sheet->problems !== []) {
            throw new Refused('unfinished_ladder', $context->sheet->problems[0]->message ?? 'The ladder is not finished.', 422, RuleStore::listed($context->sheet->problems));
        }
        $json = json_encode($rungs, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);

        return $this->db->transaction(function () use ($id, $version, $name, $json): int {
            $this->mustBeFree('ladders', 'name = ?', [$name], $id);
            if ($id === null) {
                [$id] = Batch::insertForIds($this->db, 'ladders', [['name' => $name, 'rungs' => $json]]);
            } else {
                $before = $this->mustBeCurrent('ladders', $id, $version);
                $this->mustKeepName($before->name, $name, $this->usersOf('ladder', $before->name));
                $this->db->update('UPDATE ladders SET name = ?, rungs = ?, version = version + 1 WHERE id = ?', [$name, $json, $id]);
            }
            $this->changed('ladder', $name);

            return $id;
        });
    }

    /** @throws Refused while rules use it */
    public function dropLadder(int $id): void
    {
        $row = $this->db->selectOne('SELECT name FROM ladders WHERE id = ?', [$id]) ?? throw new Refused('not_found', 'There is no such ladder.', 404);
        $this->mustBeUnused($row->name, $this->usersOf('ladder', $row->name));
        $this->db->delete('DELETE FROM ladders WHERE id = ?', [$id]);
    }

    /** @return ?Condition null when it no longer reads */
    public function condition(RecordType $type, string $json): ?Condition
    {
        return ConditionReader::read($this->context($type), new Node(json_decode($json, true, 512, JSON_THROW_ON_ERROR)));
    }

    public function context(RecordType $type): Context
    {
        return new Context($this->schemas->schema(), new WithoutNamed($this->directory), $type, $this->company->zone());
    }

    /**
     * Rules whose draft or page names something kept.
     *
     * @param  string  $what  "named" for a condition, "letter" or "ladder" for those
     * @return array<int, string> names by id
     */
    public function usersOf(string $what, string $name): array
    {
        $users = [];
        foreach ($this->db->select('SELECT r.id, r.name, r.draft, p.file FROM rules r LEFT JOIN rule_pages p ON p.rule_id = r.id AND p.number = r.page') as $row) {
            foreach ([$row->draft, $row->file] as $file) {
                if ($file !== null && $this->names(json_decode($file, true, 512, JSON_THROW_ON_ERROR), $what, $name)) {
                    $users[(int) $row->id] = $row->name;
                }
            }
        }

        return $users;
    }

    /** Pages that only name it are read anew by every process, and watched for by what they now read. */
    private function changed(string $what, string $name): void
    {
        $this->db->update('UPDATE company SET kept_version = kept_version + 1 WHERE id = 1');
        foreach (array_keys($this->usersOf($what, $name)) as $rule) {
            $this->rules->watchAgain($rule);
        }
    }

    private function names(mixed $file, string $what, string $name): bool
    {
        if (! is_array($file)) {
            return false;
        }
        if ($what === 'named' ? ($file['kind'] ?? null) === 'named' && ($file['name'] ?? null) === $name : ($file[$what] ?? null) === $name) {
            return true;
        }
        foreach ($file as $below) {
            if ($this->names($below, $what, $name)) {
                return true;
            }
        }

        return false;
    }

    private function named(string $name): string
    {
        $name = trim((string) preg_replace('/\s+/u', ' ', $name));
        if ($name === '' || mb_strlen($name) > self::NAME_LENGTH) {
            $message = $name === '' ? 'Give it a name.' : 'A name has at most '.self::NAME_LENGTH.' characters.';
            throw new Refused('invalid_values', $message, 422, [['at' => '/name', 'code' => $name === '' ? 'missing' : 'too_long', 'message' => $message]]);
        }

        return $name;
    }

    /** @param  list<string>  $bindings */
    private function mustBeFree(string $table, string $where, array $bindings, ?int $id): void
    {
        $taken = $this->db->scalar("SELECT id FROM {$table} WHERE {$where} FOR UPDATE", $bindings);
        if ($taken !== null && (int) $taken !== $id) {
            throw new Refused('name_taken', 'There is one of that name already.', 409, [['at' => '/name', 'code' => 'name_taken', 'message' => 'There is one of that name already.']]);
        }
    }

    private function mustBeCurrent(string $table, int $id, ?int $version): object
    {
        $row = $this->db->selectOne("SELECT * FROM {$table} WHERE id = ? FOR UPDATE", [$id]) ?? throw new Refused('not_found', 'It is gone.', 404);
        if ($version !== null && (int) $row->version !== $version) {
            throw new Refused('stale_version', 'Somebody changed it after you opened it. Open it again to see how it reads now.', 409);
        }

        return $row;
    }

    /** @param  array<int, string>  $users */
    private function mustKeepName(string $before, string $after, array $users): void
    {
        if ($before !== $after && $users !== []) {
            throw new Refused('in_use', "‘{$before}’ keeps its name while rules use it: ".implode(', ', $users).'.', 409, [['at' => '/name', 'code' => 'in_use', 'message' => 'Rules use it by this name.']]);
        }
    }

    /** @param  array<int, string>  $users */
    private function mustBeUnused(string $name, array $users): void
    {
        if ($users !== []) {
            throw new Refused('in_use', "‘{$name}’ is used by ".implode(', ', $users).'. Change those rules first.', 409);
        }
    }
}
