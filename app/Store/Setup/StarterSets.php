<?php

declare(strict_types=1);

namespace App\Store\Setup;

use App\Store\Rules\RuleStore;
use App\Store\Types\SchemaStore;
use Symfony\Component\Yaml\Yaml;

/** Record types and rules that a new company can start with, from the files in database/sets. The rules are drafts, to be looked at. */
final readonly class StarterSets
{
    public function __construct(private SchemaStore $schemas, private RuleStore $rules)
    {
    }

    /** @return array<string, array{label: string, says: string, types: list<string>}> by name */
    public static function all(): array
    {
        return self::file('sets.yaml');
    }

    /** @param  list<string>  $names  of sets; record types there are already stay as they are */
    public function makeTypes(array $names): void
    {
        foreach (self::types($names) as $type) {
            if ($this->schemas->schema()->type($type) === null) {
                $this->schemas->add($type, self::file("types/{$type}.yaml"));
            }
        }
    }

    /**
     * @param  list<string>  $names
     * @param  int  $by  in whose name the drafts are
     */
    public function draftRules(array $names, int $by): void
    {
        $types = self::types($names);
        foreach (glob(database_path('sets/rules/*.json')) ?: [] as $path) {
            $file = json_decode((string) file_get_contents($path), true, 512, JSON_THROW_ON_ERROR);
            if (in_array($file['on'], $types, true)) {
                $this->rules->draft($file, $by);
            }
        }
    }

    /**
     * @param  list<string>  $names
     * @return list<string> the record types of sets, each before those that refer to it
     */
    private static function types(array $names): array
    {
        $all = self::all();

        return array_values(array_unique(array_merge(...array_map(static fn (string $name): array => $all[$name]['types'] ?? [], $names))));
    }

    /** @return array<string, mixed> */
    private static function file(string $name): array
    {
        return Yaml::parseFile(database_path("sets/{$name}"));
    }
}
