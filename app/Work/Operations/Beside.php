<?php

declare(strict_types=1);

namespace App\Work\Operations;

use App\Store\DomainError;
use App\Store\RefusedFor;
use Illuminate\Database\Connection;
use Illuminate\Database\QueryException;

/** A database beside the application's own, which takes its place once all that it is to hold has come and was looked at. */
final readonly class Beside
{
    private string $home;

    private string $name;

    /** Where what was there before is kept while the two change places. */
    private string $before;

    public function __construct(private Connection $db)
    {
        $this->home = (string) $db->getDatabaseName();
        $this->name = "{$this->home}_beside";
        $this->before = "{$this->home}_before";
    }

    /** @throws DomainError when the account of the application may not make one */
    public function make(): void
    {
        try {
            foreach ([$this->name, $this->before] as $database) {
                $this->db->statement("DROP DATABASE IF EXISTS `{$database}`");
                $this->db->statement("CREATE DATABASE `{$database}` CHARACTER SET utf8mb4");
            }
        } catch (QueryException $refused) {
            $message = "A backup is loaded beside the company that is there, into {$this->name}, and that database cannot be made: "
                .($refused->errorInfo[2] ?? $refused->getMessage());
            throw new DomainError('no_room', $message, RefusedFor::Conflict, more: ['database' => $this->name]);
        }
    }

    public function turnTo(): void
    {
        $this->turn($this->name);
    }

    public function turnBack(): void
    {
        $this->turn($this->home);
    }

    /** The two change places, with one statement: all tables of them, or none. */
    public function swap(): void
    {
        $moves = [
            ...array_map(fn (string $table): string => "`{$this->home}`.`{$table}` TO `{$this->before}`.`{$table}`",
                $this->tables($this->home)),
            ...array_map(fn (string $table): string => "`{$this->name}`.`{$table}` TO `{$this->home}`.`{$table}`",
                $this->tables($this->name)),
        ];
        $this->db->statement('RENAME TABLE '.implode(', ', $moves));
    }

    public function drop(): void
    {
        foreach ([$this->name, $this->before] as $database) {
            $this->db->statement("DROP DATABASE IF EXISTS `{$database}`");
        }
    }

    private function turn(string $database): void
    {
        if ($this->db->getDatabaseName() === $database) {
            return;
        }
        config(["database.connections.{$this->db->getName()}.database" => $database]);
        $this->db->setDatabaseName($database);
        $this->db->disconnect();
    }

    /** @return list<string> tables and sequences */
    private function tables(string $database): array
    {
        $rows = $this->db->select('SELECT table_name AS name FROM information_schema.tables WHERE table_schema = ?', [$database]);

        return array_values(array_map(static fn (\stdClass $row): string => $row->name, $rows));
    }
}
