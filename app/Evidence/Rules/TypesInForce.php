<?php

declare(strict_types=1);

namespace App\Evidence\Rules;

use App\Models\Rules\StoredRule;
use App\Store\Types\SchemaStore;
use Illuminate\Contracts\Cache\Repository;

/**
 * What all rules in force together mean for the record types. Every page of the screens asks, and reading the rules takes ten times what
 * the rest of the answer takes; so it is kept until a rule, a record type or the application itself changes.
 */
final readonly class TypesInForce
{
    private const KEPT_AS = 'types-in-force';

    public function __construct(private RulesInForce $rules, private SchemaStore $schemas, private Repository $cache)
    {
    }

    /**
     * @return array{fills: array<string, list<string>>, byHand: list<string>} names of the fields that rules fill in, by record type;
     *                                                                         and the types on which a rule can be run by hand
     */
    public function read(): array
    {
        $version = $this->version();
        $kept = $this->cache->get(self::KEPT_AS);
        if (is_array($kept) && ($kept['version'] ?? null) === $version) {
            return $kept['read'];
        }
        $read = $this->ofRules();
        // A rule that came or went while the others were read is in doubt, and is looked at again by whoever asks next.
        if ($this->version() === $version) {
            $this->cache->forever(self::KEPT_AS, ['version' => $version, 'read' => $read]);
        }

        return $read;
    }

    /** @return array{fills: array<string, list<string>>, byHand: list<string>} */
    private function ofRules(): array
    {
        $fills = $byHand = [];
        foreach ($this->rules->all() as $rule) {
            foreach ($rule->writes($this->schemas->schema()->types[$rule->on]) as $written) {
                $fills[$written->type][$written->field] = true;
            }
            if ($rule->runsByHand()) {
                $byHand[$rule->on] = true;
            }
        }

        return [
            'fills' => array_map(static fn (array $fields): array => array_map(strval(...), array_keys($fields)), $fills),
            'byHand' => array_map(strval(...), array_keys($byHand)),
        ];
    }

    /** Anew whenever a rule comes into force or leaves it, whenever something that rules read is changed, and with each release. */
    private function version(): string
    {
        $pages = StoredRule::query()->inForce()->orderBy('id')->toBase()->get(['id', 'page']);

        return hash('xxh128', (string) json_encode([PageSummaries::version(), $pages]));
    }
}
