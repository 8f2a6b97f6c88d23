<?php

declare(strict_types=1);

namespace App\Evidence\Lists;

use App\Models\Import\RowResult;
use App\Store\Actor;
use App\Store\Lists\BulkStore;
use App\Store\Lists\Chosen;
use App\Store\Records\RowToSave;
use App\Store\Records\SavedRow;
use App\Store\Records\SaveMany;
use VividLedger\Schema\RecordType;

/** What work on many records would come to, tried on paper on the first of them. */
final readonly class BulkPreview
{
    /** So many are tried: what they come to is told of them, and guessed of the rest. */
    public const MOST = 300;

    private const REASONS = 5;

    public function __construct(private BulkStore $bulk, private SaveMany $save)
    {
    }

    /**
     * @param  array<array-key, mixed>  $values  raw values by field name
     * @return array{total: int, tried: int, same: int, rules: array<int, array{name: string, count: int}>, refused: array<string, int>}
     */
    public function change(Chosen $chosen, array $values, Actor $actor): array
    {
        $ids = $this->bulk->first($chosen, self::MOST);
        $rows = array_map(static fn (int $id): RowToSave => new RowToSave($id, $values), $ids);

        return ['total' => $this->bulk->count($chosen)] + $this->rows($chosen->type, $rows, $actor);
    }

    /**
     * @param  list<RowToSave>  $rows
     * @return array{tried: int, same: int, rules: array<int, array{name: string, count: int}>, refused: array<string, int>}
     */
    public function rows(RecordType $type, array $rows, Actor $actor): array
    {
        $tried = $this->save->tried($type, $rows, $actor);
        [$rules, $refused] = [[], []];
        foreach ($tried as $row) {
            foreach ($row->fired as $rule) {
                $rules[$rule->id] ??= ['name' => $rule->name, 'count' => 0];
                $rules[$rule->id]['count']++;
            }
            if ($row->result === RowResult::Refused) {
                $refused[$row->said] = ($refused[$row->said] ?? 0) + 1;
            }
        }
        arsort($refused);

        return [
            'tried' => count($tried), 'rules' => $rules, 'refused' => array_slice($refused, 0, self::REASONS),
            'same' => count(array_filter($tried, static fn (SavedRow $row): bool => $row->result === RowResult::Same)),
        ];
    }
}
