<?php

declare(strict_types=1);

namespace App\Store\Rules;

use App\Models\Rules\PublishedPage;
use App\Store\Sql\RuleWatchQuery;
use App\Store\Types\SchemaStore;
use Illuminate\Contracts\Container\Container;
use VividLedger\Engine\Pages;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Rule;

/** The rules in force, found through the index of what they watch; a save reads no more rules than it may need. */
final class StoredRuleBook implements Pages
{
    private const GUESSES = 200;

    /** @var array<string, ?Rule> by rule, page and place; a page never changes, so it is read once for each process */
    private array $read = [];

    /** What pages only name, such as letters, can change; then every page is read again. */
    private ?int $keptVersion = null;

    private ?RuleReader $reader = null;

    /** @var array<string, array<string, true>> what was asked for next, by what was asked first: a guess that saves a question, or not */
    private array $next = [];

    public function __construct(
        private readonly Container $app,
        private readonly SchemaStore $schemas,
    ) {
    }

    /**
     * @param  non-empty-list<string>  $watches  keys that changes of a record type touch
     * @return list<\stdClass> as App\Store\Sql\RulesAsked gives them
     */
    public function watching(string $type, array $watches): array
    {
        $rows = RuleWatchQuery::by($type, $watches);
        if ($rows !== [] && $this->keptVersion !== (int) $rows[0]->kept_version) {
            $this->read = [];
            $this->reader = null;
            $this->keptVersion = (int) $rows[0]->kept_version;
        }

        return $rows;
    }

    /**
     * @param  string  $first  the keys that a save begins with
     * @return list<string> the keys that such a save went on to ask for before
     */
    public function askedNext(string $type, string $first): array
    {
        return array_map(strval(...), array_keys($this->next["{$type} {$first}"] ?? []));
    }

    /** @param  list<string>  $keys */
    public function wasAskedNext(string $type, string $first, array $keys): void
    {
        if (count($this->next) >= self::GUESSES) {
            $this->next = [];
        }
        $this->next["{$type} {$first}"] = ($this->next["{$type} {$first}"] ?? []) + array_fill_keys($keys, true);
    }

    /** @return list<string> the fields of a record type that the lines of a rule may write */
    public function written(Rule $rule, string $type): array
    {
        $fields = [];
        foreach ($rule->writes($this->schemas->schema()->types[$rule->on]) as $written) {
            if ($written->type === $type) {
                $fields[] = $written->field;
            }
        }

        return $fields;
    }

    /**
     * Pages that will be asked for, fetched at once.
     *
     * @param  list<array{int, int, string}>  $pages  rule, number and either/or set of each
     */
    public function remember(array $pages): void
    {
        $new = array_values(array_filter($pages, fn (array $page): bool => ! array_key_exists(implode(':', $page), $this->read)));
        $files = $new === [] ? [] : PublishedPage::filesOf(array_map(static fn (array $page): array => [$page[0], $page[1]], $new));
        foreach ($new as $page) {
            [$rule, $number, $eitherOr] = $page;
            if (isset($files[$rule][$number])) {
                $this->read[implode(':', $page)] = $this->reader()->read($files[$rule][$number], $rule, $number, $eitherOr)->rule;
            }
        }
    }

    /** @return ?Rule null when the page no longer reads soundly, because something it names is gone */
    public function page(int $ruleId, int $number, string $eitherOr = ''): ?Rule
    {
        $key = "{$ruleId}:{$number}:{$eitherOr}";
        if (! array_key_exists($key, $this->read)) {
            $this->read[$key] = $this->reader()->read(PublishedPage::fileOf($ruleId, $number), $ruleId, $number, $eitherOr)->rule;
        }

        return $this->read[$key];
    }

    /** With a directory of its own, that knows nothing from before. */
    private function reader(): RuleReader
    {
        return $this->reader ??= $this->app->make(RuleReader::class);
    }
}
