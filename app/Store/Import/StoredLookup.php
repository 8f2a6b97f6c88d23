<?php

declare(strict_types=1);

namespace App\Store\Import;

use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use App\Store\Types\SchemaStore;
use VividLedger\Import\Lookup;
use VividLedger\Schema\RecordType;

/** Finds people and records by the words of a file; what many cells will ask for is asked for at once. */
final class StoredLookup implements Lookup
{
    /** @var ?array<string, ?int> by what they are called; null where two are */
    private ?array $people = null;

    /** @var array<string, array<string, list<int>>> by type and what it is called */
    private array $records = [];

    public function __construct(private readonly SchemaStore $schemas)
    {
    }

    public function person(string $said): ?int
    {
        return $this->people()[mb_strtolower($said)] ?? null;
    }

    public function records(string $type, string $said): array
    {
        $key = mb_strtolower($said);
        if (! isset($this->records[$type][$key])) {
            $this->remember($type, [$said]);
        }

        return $this->records[$type][$key] ?? [];
    }

    /** @param  list<string>  $all  what cells say */
    public function remember(string $typeName, array $all): void
    {
        $type = $this->schemas->schema()->type($typeName);
        $new = [];
        foreach ($all as $said) {
            $key = mb_strtolower($said);
            if ($said !== '' && ! isset($this->records[$typeName][$key])) {
                $this->records[$typeName][$key] = [];
                $new[$key] = $said;
            }
        }
        if ($type === null || $new === []) {
            return;
        }
        [$numbered, $titled] = [[], []];
        foreach ($new as $key => $said) {
            $id = $type->idOf($said);
            $id === null ? $titled[$key] = $said : $numbered[$id] = $key;
        }
        $this->byNumber($type, $numbered);
        $this->byTitle($type, $titled);
    }

    /** @param  array<int, string>  $numbered  what it was called by id */
    private function byNumber(RecordType $type, array $numbered): void
    {
        foreach ($numbered === [] ? [] : StoredRecord::rowsOf($type)->whereIn('id', array_keys($numbered))->pluck('id') as $id) {
            $this->records[$type->name][$numbered[(int) $id]] = [(int) $id];
        }
    }

    /** @param  array<string, string>  $titled */
    private function byTitle(RecordType $type, array $titled): void
    {
        if ($titled === []) {
            return;
        }
        $found = StoredRecord::rowsOf($type)->whereIn($type->title, array_values($titled))->select('id', "{$type->title} as title")->get();
        foreach ($found as $row) {
            $key = mb_strtolower((string) $row->title);
            if (isset($titled[$key])) {
                $this->records[$type->name][$key][] = (int) $row->id;
            }
        }
    }

    /** @return array<string, ?int> */
    private function people(): array
    {
        if ($this->people === null) {
            $this->people = [];
            foreach (Person::rows()->where('active', true)->get(['id', 'name', 'handle', 'email']) as $row) {
                foreach (array_unique([$row->name, $row->handle, $row->email]) as $called) {
                    $key = mb_strtolower((string) $called);
                    $this->people[$key] = array_key_exists($key, $this->people) ? null : (int) $row->id;
                }
            }
        }

        return $this->people;
    }
}
