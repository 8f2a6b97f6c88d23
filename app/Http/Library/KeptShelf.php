<?php

declare(strict_types=1);

namespace App\Http\Library;

use App\Http\Rules\RuleResources;
use App\Models\Library\LetterVersion;
use App\Models\Library\StoredCondition;
use App\Models\Library\StoredLadder;
use App\Models\Library\StoredLetter;
use App\Store\Access\AccessScope;
use App\Store\Access\SeenRules;
use App\Store\Library\KeptStore;
use App\Store\Lists\RecordList;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use VividLedger\Condition\ConditionReader;
use VividLedger\Record\Value;
use VividLedger\Rule\Ladder\Ladders;
use VividLedger\Rule\Reading\RulePage;
use VividLedger\Shape\Node;

/** Reads what the company keeps under names: letters, conditions and ladders, each with the rules that use it. */
final readonly class KeptShelf
{
    public function __construct(
        private KeptStore $kept,
        private SchemaStore $schemas,
        private RuleResources $resources,
        private RecordList $list,
        private AccessScope $inSight,
        private SeenRules $seen,
    ) {
    }

    /**
     * @param  ?int  $only  of this id
     * @return list<LetterResource>
     */
    public function letters(?int $only = null): array
    {
        $letters = self::asked($this->inSight->ofTypes(StoredLetter::query())->with('currentVersion.author')->orderBy('name'), $only)
            ->get()->filter(fn (StoredLetter $letter): bool => $this->mayLetter($letter->record_type, $letter->currentVersion));

        $users = $this->kept->users('letter');

        return array_values($letters->map(static fn (StoredLetter $letter): LetterResource => new LetterResource(
            id: $letter->id, name: $letter->name, recordType: $letter->record_type, version: $letter->version,
            subject: $letter->currentVersion->subject, body: $letter->currentVersion->body,
            at: Value::instantText($letter->currentVersion->at), by: $letter->currentVersion->author->name,
            rules: array_values($users[$letter->name] ?? []),
        ))->all());
    }

    /** @return list<LetterVersionResource> the latest first */
    public function versions(int $letter): array
    {
        $on = (string) StoredLetter::query()->whereKey($letter)->value('record_type');
        $versions = LetterVersion::query()->where('letter_id', $letter)->with('author')->latest('number')->get()
            ->filter(fn (LetterVersion $version): bool => $this->mayLetter($on, $version));

        return array_values($versions->map(static fn (LetterVersion $version): LetterVersionResource => new LetterVersionResource(
            $version->number, $version->subject, $version->body, Value::instantText($version->at), $version->author->name,
        ))->all());
    }

    /**
     * @param  ?int  $only  of this id
     * @return list<NamedResource>
     */
    public function named(?int $only = null): array
    {
        $conditions = self::asked($this->inSight->ofTypes(StoredCondition::query())->orderBy('record_type')->orderBy('name'), $only)->get()
            ->filter(fn (StoredCondition $named): bool => $this->seen->mayCondition(
                $this->schemas->schema()->types[$named->record_type], $named->file,
            ));

        $users = $this->kept->users('named');
        $readings = [];
        $sound = [];
        foreach ($conditions as $named) {
            $type = $this->schemas->schema()->types[$named->record_type];
            $context = $this->kept->context($type);
            $condition = ConditionReader::read($context, new Node($named->file, '/onlyIf'));
            $readings[$named->id] = $this->resources->reading(new RulePage($context->sheet->rows, $context->sheet->problems, null));
            if ($condition !== null) {
                $sound[$named->id] = [$type, $condition];
            }
        }
        // A count would tell of fields that are kept from whoever asks.
        $counts = $this->inSight->isEverything() ? $this->list->counts($sound) : [];

        return array_values($conditions->map(static fn (StoredCondition $named): NamedResource => new NamedResource(
            id: $named->id, name: $named->name, recordType: $named->record_type, version: $named->version, file: $named->file,
            reading: $readings[$named->id], matching: $counts[$named->id] ?? null, rules: array_values($users[$named->name] ?? []),
        ))->all());
    }

    /**
     * @param  ?int  $only  of this id
     * @return list<LadderResource>
     */
    public function ladders(?int $only = null): array
    {
        $types = array_values($this->schemas->schema()->types);
        $users = $this->kept->users('ladder');
        $ladders = self::asked(StoredLadder::query()->orderBy('name'), $only)->get();

        return array_values($ladders->map(function (StoredLadder $stored) use ($types, $users): LadderResource {
            $ladder = Ladders::rungs($this->kept->context($types[0]), new Node($stored->rungs), $stored->name);

            return new LadderResource(
                id: $stored->id, name: $stored->name, version: $stored->version, rungs: $stored->rungs,
                said: $ladder === null ? [] : array_map(
                    Ladders::said(...),
                    $ladder->rungs,
                ),
                rules: array_values($users[$stored->name] ?? []),
            );
        })->all());
    }

    private function mayLetter(string $on, LetterVersion $version): bool
    {
        $type = $this->schemas->schema()->type($on);

        return $type !== null && $this->seen->mayLetter($type, $version->subject, $version->body);
    }

    /**
     * @template T of Model
     *
     * @param  Builder<T>  $all
     * @return Builder<T>
     */
    private static function asked(Builder $all, ?int $only): Builder
    {
        return $only === null ? $all : $all->whereKey($only);
    }
}
