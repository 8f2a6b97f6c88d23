<?php

declare(strict_types=1);

namespace App\Work\Operations;

use App\Models\Ledger\Entry;
use App\Models\Ledger\EntrySeal;
use Illuminate\Database\Connection;

/** What a backup says of itself in its first line: when it was made, of which tables, and how much there was at least. */
final readonly class Manifest
{
    private const MARK = '-- vivid ledger backup ';

    /** The last line of a backup that is whole. */
    public const END = '-- end of the backup';

    /** @param  list<string>  $migrations */
    public function __construct(public string $at, public array $migrations, public int $entries, public string $checkpoint)
    {
    }

    public static function of(Connection $db): self
    {
        $seal = EntrySeal::query()->orderByDesc('entry_id')->first();
        $migrations = array_map(strval(...), $db->table('migrations')->orderBy('id')->pluck('migration')->all());

        return new self(
            gmdate('Y-m-d\TH:i:s\Z'),
            array_values($migrations),
            Entry::query()->count(),
            $seal === null ? '' : "{$seal->entry_id}:".bin2hex($seal->hash),
        );
    }

    public function line(): string
    {
        return self::MARK.json_encode(get_object_vars($this), JSON_THROW_ON_ERROR)."\n";
    }

    /** @return ?self null when the line begins no backup of ours */
    public static function read(string $line): ?self
    {
        $kept = str_starts_with($line, self::MARK) ? json_decode(substr($line, strlen(self::MARK)), true) : null;
        if (! is_array($kept) || ! is_string($kept['at'] ?? null) || ! is_array($kept['migrations'] ?? null)
            || ! is_int($kept['entries'] ?? null) || ! is_string($kept['checkpoint'] ?? null)) {
            return null;
        }

        $migrations = array_values(array_filter($kept['migrations'], is_string(...)));

        return new self($kept['at'], $migrations, $kept['entries'], $kept['checkpoint']);
    }
}
