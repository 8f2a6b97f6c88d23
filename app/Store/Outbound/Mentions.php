<?php

declare(strict_types=1);

namespace App\Store\Outbound;

use App\Models\Columns;
use App\Models\People\Person;
use App\Models\Records\Mention;
use App\Models\Records\StoredRecord;
use App\Store\Access\AccessScope;
use App\Store\Sql\Batch;
use VividLedger\Schema\RecordType;

/** People who are named in comments by "@" and their handle. Who does not see the record is told nothing of it. */
final readonly class Mentions
{
    private const NAMED = '/(?<![\w.@])@([a-z0-9]+(?:[._-][a-z0-9]+)*)/';

    private const MOST = 50;

    private const EXCERPT = 140;

    public function __construct(private AccessScope $inSight)
    {
    }

    public function keep(int $comment, RecordType $type, int $record, string $text, ?int $by, \DateTimeImmutable $at): void
    {
        preg_match_all(self::NAMED, $text, $named);
        $handles = array_slice(array_values(array_unique($named[1])), 0, self::MOST);
        $people = $handles === [] ? [] : Person::query()->whereIn('handle', $handles)->where('active', true)->get()->all();
        $rows = [];
        foreach ($people as $person) {
            if ($person->id !== $by && $this->sees($person, $type, $record)) {
                $rows[] = [
                    'comment_id' => $comment, 'person_id' => $person->id, 'by_id' => $by, 'record_type' => $type->name,
                    'record_id' => $record, 'text' => self::excerpt($text), 'at' => Columns::moment($at),
                ];
            }
        }
        Batch::insert(Mention::class, $rows);
    }

    private function sees(Person $person, RecordType $type, int $record): bool
    {
        $sight = $this->inSight->of($person);
        $where = $sight->where($type, StoredRecord::tableOf($type->name));

        return $where === null || StoredRecord::rowsOf($type)->where('id', $record)->whereRaw($where)->exists();
    }

    private static function excerpt(string $text): string
    {
        $line = trim((string) preg_replace('/\s+/u', ' ', $text));

        return mb_strlen($line) > self::EXCERPT ? mb_substr($line, 0, self::EXCERPT - 1).'…' : $line;
    }
}
