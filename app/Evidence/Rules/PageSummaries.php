<?php

declare(strict_types=1);

namespace App\Evidence\Rules;

use App\Models\Setup\CompanySettings;
use App\Store\People\PeopleStore;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use Illuminate\Contracts\Cache\Repository;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Words\Words;

/**
 * What rule pages say, for lists of them. Reading a page takes ten times what the rest of its line in a list takes, and a page says the
 * same until a record type, something that rules name, the language or the application itself changes; so what it says is kept until then.
 * What calls a record by its title is read each time: titles change with the records.
 */
final readonly class PageSummaries
{
    private const KEPT_AS = 'page-summaries-';

    /** More than are looked at together are forgotten with the next that come. */
    private const MOST = 2_000;

    public function __construct(private SchemaStore $schemas, private Company $company, private Repository $cache)
    {
    }

    /**
     * @param  array<int, array<string, mixed>>  $files  rule files
     * @return array<int, array{aloud: string, problem: ?string, byHand: bool}> in the same places; the problem is the first there is
     */
    public function of(array $files): array
    {
        $keptAs = self::KEPT_AS.Words::language();
        $version = self::version();
        $kept = $this->cache->get($keptAs);
        $known = is_array($kept) && $kept['version'] === $version ? $kept['said'] : [];
        $said = $new = [];
        $names = new PeopleStore($this->schemas);
        $reader = new RuleReader($this->schemas->schema(), $names, $this->company->zone());
        foreach ($files as $place => $file) {
            $mark = hash('xxh128', (string) json_encode($file));
            $said[$place] = $known[$mark] ?? $new[$mark] ?? null;
            if ($said[$place] === null) {
                $said[$place] = self::read($reader, $file);
                if (! $names->hasToldTitles()) {
                    $new[$mark] = $said[$place];
                }
            }
        }
        // What changed while pages were read makes doubtful what they said; whoever asks next looks again.
        if ($new !== [] && self::version() === $version) {
            $all = count($known) + count($new) > self::MOST ? $new : $known + $new;
            $this->cache->forever($keptAs, ['version' => $version, 'said' => $all]);
        }

        return $said;
    }

    /** Another one whenever anything changes that pages may name, and with each release. */
    public static function version(): string
    {
        return CompanySettings::versions().' '.@filemtime(app()->getCachedConfigPath());
    }

    /**
     * @param  array<string, mixed>  $file
     * @return array{aloud: string, problem: ?string, byHand: bool}
     */
    private static function read(RuleReader $reader, array $file): array
    {
        $page = $reader->read($file);

        return [
            'aloud' => $page->aloud(), 'problem' => $page->problems[0]->message ?? null, 'byHand' => $page->rule?->runsByHand() ?? false,
        ];
    }
}
