<?php

declare(strict_types=1);

namespace App\Store\Access;

use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use App\Store\Types\SchemaStore;
use Illuminate\Contracts\Auth\Factory;
use Illuminate\Contracts\Database\Query\Builder;
use VividLedger\Rights\AccessProfile;
use VividLedger\Rights\Act;
use VividLedger\Rights\Reach;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/**
 * What whoever asks may see, for queries: whatever is read for a person goes through here, or through RecordGate. Without a person the
 * house itself asks, and sees everything.
 */
final readonly class AccessScope
{
    public function __construct(private Factory $auth, private SchemaStore $schemas, private ?AccessProfile $whose = null)
    {
    }

    /** The same for somebody else than who asks. */
    public function of(Person $person): self
    {
        return new self($this->auth, $this->schemas, $person->sight());
    }

    public function sight(): AccessProfile
    {
        if ($this->whose !== null) {
            return $this->whose;
        }
        $person = $this->auth->guard()->user();

        return $person instanceof Person ? $person->sight() : AccessProfile::ofTheHouse();
    }

    /** The record types and fields there are for them. */
    public function schema(): Schema
    {
        return $this->sight()->schema($this->schemas->schema());
    }

    /** @return array<string, RecordType> all there are, whoever asks, with all their fields */
    public function allTypes(): array
    {
        return $this->schemas->schema()->types;
    }

    /** Whether no record and no field is kept from them. */
    public function isEverything(): bool
    {
        return $this->sight()->role->readsEverything($this->schemas->schema());
    }

    /**
     * What has to hold of a row of a type's table for them to see it, or to act on it; as SQL without bindings.
     *
     * @return ?string null where it holds of every row
     */
    public function where(RecordType|string $type, string $alias, Act $act = Act::Read): ?string
    {
        $type = is_string($type) ? $this->schemas->schema()->type($type) : $type;
        $owners = $type === null ? [] : $this->sight()->owners($act, $type->name);
        if ($type === null || $owners === []) {
            return 'FALSE';
        }
        if ($owners === null) {
            return null;
        }
        $ids = implode(', ', $owners);

        return "`{$alias}`.`belongs_to` IN ({$ids})";
    }

    /**
     * Leaves of rows about records those about a record they see.
     *
     * @template TBuilder of Builder
     *
     * @param  TBuilder  $rows
     * @param  bool  $orNone  whether rows about no record stay
     * @return TBuilder
     */
    public function about(Builder $rows, bool $orNone = false, string $type = 'record_type', string $id = 'record_id'): Builder
    {
        $all = $narrow = [];
        foreach ($this->schemas->schema()->types as $one) {
            $where = $this->where($one, 'seen');
            if ($where === null) {
                $all[] = $one->name;
            } elseif ($where !== 'FALSE') {
                $narrow[$one->name] = $where;
            }
        }
        if (count($all) === count($this->schemas->schema()->types)) {
            // Something is always asked: an empty group beside an "or" would be dropped, and all that it lets through with it.
            $rows->whereRaw('TRUE');

            return $rows;
        }
        $rows->where(static function (Builder $either) use ($all, $narrow, $orNone, $type, $id): void {
            $either->whereIn($type, $all);
            foreach ($narrow as $name => $where) {
                $table = StoredRecord::tableOf($name);
                $either->orWhereRaw("({$type} = ? AND EXISTS (SELECT 1 FROM `{$table}` `seen` WHERE `seen`.id = {$id} AND {$where}))",
                    [$name]);
            }
            if ($orNone) {
                $either->orWhereNull($type);
            }
        });

        return $rows;
    }

    /**
     * Leaves of rows that belong to a record type those of the types there are for them.
     *
     * @template TBuilder of Builder
     *
     * @param  TBuilder  $rows
     * @return TBuilder
     */
    public function ofTypes(Builder $rows): Builder
    {
        if (! $this->isEverything()) {
            $rows->whereIn('record_type', array_keys($this->schema()->types));
        }

        return $rows;
    }

    /** Whether an act extends to everybody's records of a type. */
    public function isUnbounded(Act $act, string $type): bool
    {
        return $this->sight()->role->reach($act, $type) === Reach::All;
    }
}
