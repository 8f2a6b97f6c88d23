<?php

declare(strict_types=1);

namespace App\Store\Lists;

use App\Models\Records\StoredRecord;
use App\Store\Access\AccessScope;
use Illuminate\Database\Query\Builder;
use VividLedger\Condition\Condition;
use VividLedger\Rights\Act;
use VividLedger\Schema\RecordType;

/** The records that somebody has chosen: some by their ids, or all that fit. */
final readonly class Chosen
{
    /** @param  ?list<int>  $ids  null for all that fit */
    private function __construct(public RecordType $type, public ?array $ids, private ?Condition $condition, private string $search)
    {
    }

    /** @param  list<int>  $ids */
    public static function some(RecordType $type, array $ids): self
    {
        return new self($type, array_values(array_unique($ids)), null, '');
    }

    public static function allThatFit(RecordType $type, ?Condition $condition, string $search): self
    {
        return new self($type, null, $condition, $search);
    }

    /** Their rows, as "t", of those that whoever asks may change. */
    public function rows(RecordList $list, AccessScope $inSight): Builder
    {
        if ($this->ids !== null) {
            return StoredRecord::rowsOf($this->type)->from(StoredRecord::tableOf($this->type->name), 't')->whereIn('t.id', $this->ids);
        }
        $rows = $list->found($inSight->sight()->type($this->type), $this->condition, $this->search);
        $reached = $inSight->where($this->type, 't', Act::Change);

        return $reached === null ? $rows : $rows->whereRaw($reached);
    }
}
