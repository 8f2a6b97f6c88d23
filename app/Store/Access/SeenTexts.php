<?php

declare(strict_types=1);

namespace App\Store\Access;

use App\Models\Columns;
use App\Models\Records\StoredRecord;
use VividLedger\Words\Words;

/**
 * Which texts that rules wrote somebody may read: not those that tell of a field that is hidden from them, or of a record out of their
 * sight. A text says of what it tells ("customer:12:tax_number", or "contact:3:" for the record as such).
 */
final class SeenTexts
{
    /** @var array<string, bool> whether a record is in sight, by type and id */
    private array $seen = [];

    public function __construct(private readonly AccessScope $inSight)
    {
    }

    /**
     * Looks at once at all records that some texts tell of.
     *
     * @param  iterable<list<string>>  $texts  what each tells of
     */
    public function remember(iterable $texts): void
    {
        if ($this->inSight->isEverything()) {
            return;
        }
        $ids = [];
        foreach ($texts as $tells) {
            foreach ($tells as $one) {
                [$type, $id] = explode(':', $one) + [1 => '0'];
                if (! isset($this->seen["{$type}:{$id}"])) {
                    $this->seen["{$type}:{$id}"] = false;
                    $ids[$type][] = (int) $id;
                }
            }
        }
        $types = $this->inSight->schema()->types;
        foreach (array_intersect_key($ids, $types) as $type => $of) {
            $where = $this->inSight->where($type, StoredRecord::tableOf($type));
            $rows = $where === null ? $of : Columns::ints(StoredRecord::rowsOf($type)->whereIn('id', $of)->whereRaw($where)->pluck('id'));
            foreach ($rows as $id) {
                $this->seen["{$type}:{$id}"] = true;
            }
        }
    }

    /** @param  list<string>  $tells */
    public function may(array $tells): bool
    {
        if ($tells === [] || $this->inSight->isEverything()) {
            return true;
        }
        $this->remember([$tells]);
        $schema = $this->inSight->schema();
        foreach ($tells as $one) {
            [$name, $id, $field] = explode(':', $one) + [1 => '0', 2 => ''];
            $type = $schema->type($name);
            if ($type === null || ! $this->seen["{$name}:{$id}"] || ($field !== '' && $schema->path($type, $field) === null)) {
                return false;
            }
        }

        return true;
    }

    /**
     * The text, or what stands in its place.
     *
     * @param  list<string>  $tells
     */
    public function shown(string $text, array $tells): string
    {
        return $text === '' || $this->may($tells) ? $text : self::withheld();
    }

    public static function withheld(): string
    {
        return Words::say('This tells of something that is hidden from you.');
    }
}
