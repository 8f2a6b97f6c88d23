<?php

declare(strict_types=1);

namespace Tests\Core;

use PhpParser\Node;
use PhpParser\Node\Expr;
use PhpParser\NodeFinder;
use PhpParser\ParserFactory;
use PHPUnit\Framework\Attributes\After;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\German;
use Tests\Core\Support\Sentences;
use VividLedger\Words\Words;

/** What the product says, in other languages: the message files are whole, and what is kept stays English. */
final class WordsTest extends TestCase
{
    /** What is kept in English, reasons of rows and labels of the application’s own fields, and said when it is read. */
    private const KEPT = [
        'Created', 'Created by', 'Last changed', 'Last changed by',
        'the task has lapsed', 'the page has no such line', 'the new page has no such line', 'the slip has ended otherwise',
        'the call has ended otherwise', 'the sign-off has ended otherwise', 'the task was done', 'the task was not done in time',
        'quiet hours', 'the sign-off has ended', 'a step of the sign-off was agreed to', 'the slip was answered', 'the call has ended',
        'the slip has ended without an answer', 'the task was given', 'the rule fired again and began anew', 'the record was deleted',
        'the task has no date any more', 'the task was cancelled',
    ];

    #[After]
    protected function speakEnglish(): void
    {
        Words::speak(Words::OWN, []);
    }

    public function test_german_has_every_sentence_of_the_server_and_no_other(): void
    {
        $said = [...self::sentences(), ...self::KEPT];
        $german = German::sentences();

        self::assertSame([], array_values(array_diff($said, array_keys($german))), 'not in German');
        self::assertSame([], array_values(array_diff(array_keys($german), $said)), 'said nowhere any more');
        self::assertGreaterThan(900, count($said));
    }

    public function test_every_sentence_keeps_its_places_and_its_forms(): void
    {
        $wrong = array_filter(
            German::sentences(),
            static fn (string $german, string $english): bool => trim($german) === ''
                || self::places($german) !== self::places($english) || substr_count($german, '|') !== substr_count($english, '|')
                || str_starts_with($german, ' ') !== str_starts_with($english, ' '),
            ARRAY_FILTER_USE_BOTH,
        );

        self::assertSame([], $wrong);
    }

    /** Figures in English groups, names in small letters and English words: what fits an English sentence only. */
    public function test_what_is_filled_in_is_of_the_language_too(): void
    {
        $wrong = [];
        foreach (self::calls() as [$file, $call]) {
            foreach ((new NodeFinder)->find(array_slice($call->args, 1), self::isEnglish(...)) as $part) {
                $wrong[] = basename($file).':'.$part->getStartLine();
            }
        }

        self::assertSame([], $wrong);
    }

    /** Left out: what is kept or told to programs and on the console, the stand-ins and the demo. */
    public function test_no_sentence_stands_outside(): void
    {
        $own = '#^('.implode('|', [
            'core/Rehearse/Outline', 'core/Rule/Cases/(If|OrIf|Otherwise|EndOf)Case',
            'core/Rule/Reading/RuleFileSchema', 'core/Slip/Questions',
            'app/(Console|Demo|StandIn|Work)/', 'app/Evidence/(Lists/\w+(Piece|Worker|Results)|Import|Setup/CalendarPart)',
            'app/Store/(Outbound/Outbox|Timing/RunStore|Ledger/Verifier|Sql/)',
            'app/Http/(Inbound/(WebhookIngest|MailRoom)|Outbound/Unsubscribe|Tasks/FeedController|Describe/)',
        ]).')#';
        $outside = [];
        foreach (self::files(['core', 'app']) as $file) {
            $path = substr($file, strlen(dirname(__DIR__, 2)) + 1);
            $code = (string) file_get_contents($file);
            // What the API takes and answers is described for programs.
            $isDescribed = str_contains($code, '#[OA\Schema') || str_contains($code, 'implements SaysWhatIsAsked');
            if (preg_match($own, $path) !== 1 && ! $isDescribed) {
                foreach (Sentences::outside($file) as $line) {
                    $outside[] = "{$path}:{$line}";
                }
            }
        }

        self::assertSame([], $outside);
    }

    public function test_the_reasons_that_rows_keep_stand_in_the_code(): void
    {
        $code = implode("\n", array_map(file_get_contents(...), self::files(['core', 'app'])));

        foreach (self::KEPT as $kept) {
            self::assertStringContainsString("'{$kept}'", $code);
        }
    }

    public function test_a_sentence_is_said_in_the_language_at_hand_with_its_parts(): void
    {
        self::assertSame('Depot takes a list.', Words::say('{field} takes a list.', field: 'Depot'));
        Words::speak('de', German::sentences());

        self::assertSame('Depot nimmt eine Liste.', Words::say('{field} takes a list.', field: 'Depot'));
        self::assertSame('Not in the file: 3', Words::say('Not in the file: {count}', count: 3), 'what is missing stays English');
        self::assertSame('{field} takes', Words::say('{what}', what: '{field} takes'), 'a part is never filled in itself');
    }

    public function test_counts_take_the_form_and_the_figures_of_the_language(): void
    {
        $records = '{count} record|{count} records';
        self::assertSame(['0 records', '1 record', '12,345 records'], array_map(
            static fn (int $count): string => Words::counted($count, $records), [0, 1, 12_345],
        ));
        Words::speak('de', German::sentences());
        self::assertSame(['0 Datensätze', '1 Datensatz', '12.345 Datensätze'], array_map(
            static fn (int $count): string => Words::counted($count, $records), [0, 1, 12_345],
        ));
        self::assertSame(['', 'a', 'a und b', 'a, b und c'], array_map(Words::list(...), [[], ['a'], ['a', 'b'], ['a', 'b', 'c']]));
        self::assertSame('Ticket', Words::within('Ticket'));
        Words::speak(Words::OWN, []);
        self::assertSame('ticket', Words::within('Ticket'));
    }

    public function test_what_is_kept_is_said_in_english_whoever_saves_and_whatever_goes_wrong(): void
    {
        Words::speak('de', German::sentences());
        self::assertSame('Nothing changed', Words::toKeep(static fn (): string => Words::say('Nothing changed')));
        try {
            Words::toKeep(static fn (): never => throw new \RuntimeException(Words::say('Nothing changed')));
        } catch (\RuntimeException $thrown) {
            self::assertSame('Nothing changed', $thrown->getMessage());
        }
        self::assertSame('Nichts hat sich geändert', Words::say('Nothing changed'), 'and afterwards it speaks German again');
    }

    /** @return list<string> what stands in braces, each once */
    private static function places(string $sentence): array
    {
        preg_match_all('/\{\w+}/', $sentence, $found);
        $places = array_values(array_unique($found[0]));
        sort($places);

        return $places;
    }

    /**
     * Everything that is said by Words, or told of a gap, as it stands in the code.
     *
     * @return list<string>
     */
    private static function sentences(): array
    {
        $sentences = [];
        foreach (self::calls() as [, $node]) {
            $place = $node instanceof Expr\New_ || (string) $node->name === 'counted' ? 1 : 0;
            $sentence = isset($node->args[$place]) ? self::literal($node->args[$place]->value) : null;
            if ($sentence !== null && $sentence !== '') {
                $sentences[$sentence] = true;
            }
        }

        return array_map(strval(...), array_keys($sentences));
    }

    /** @return iterable<array{string, Expr\New_|Expr\StaticCall}> each with its file */
    private static function calls(): iterable
    {
        $parser = (new ParserFactory)->createForHostVersion();
        foreach (self::files(['core', 'app']) as $file) {
            foreach ((new NodeFinder)->find((array) $parser->parse((string) file_get_contents($file)), self::says(...)) as $call) {
                if ($call instanceof Expr\New_ || $call instanceof Expr\StaticCall) {
                    yield [$file, $call];
                }
            }
        }
    }

    private static function isEnglish(Node $node): bool
    {
        return match (true) {
            $node instanceof Expr\FuncCall => $node->name instanceof Node\Name
                && in_array((string) $node->name, ['number_format', 'lcfirst', 'strtolower', 'mb_strtolower'], true),
            $node instanceof Expr\MethodCall => $node->name instanceof Node\Identifier && $node->name->name === 'inSentence',
            $node instanceof Expr\BinaryOp\Coalesce => $node->right instanceof Node\Scalar\String_
                && preg_match('/\p{L}/u', $node->right->value) === 1,
            default => false,
        };
    }

    private static function says(Node $node): bool
    {
        return match (true) {
            $node instanceof Expr\New_ => $node->class instanceof Node\Name && $node->class->getLast() === 'Gap',
            $node instanceof Expr\StaticCall => $node->class instanceof Node\Name && $node->name instanceof Node\Identifier
                && in_array($node->class->getLast(), ['Words', 'self'], true) && in_array($node->name->name, ['say', 'counted'], true),
            default => false,
        };
    }

    private static function literal(Node $node): ?string
    {
        if ($node instanceof Node\Scalar\String_) {
            return $node->value;
        }
        if (! $node instanceof Expr\BinaryOp\Concat) {
            return null;
        }
        [$left, $right] = [self::literal($node->left), self::literal($node->right)];

        return $left === null || $right === null ? null : $left.$right;
    }

    /**
     * @param  list<string>  $folders
     * @return list<string>
     */
    private static function files(array $folders): array
    {
        $files = [];
        foreach ($folders as $folder) {
            $all = new \RecursiveDirectoryIterator(dirname(__DIR__, 2)."/{$folder}", \FilesystemIterator::SKIP_DOTS);
            foreach (new \RecursiveIteratorIterator($all) as $file) {
                if ($file instanceof \SplFileInfo && $file->getExtension() === 'php') {
                    $files[] = $file->getPathname();
                }
            }
        }

        return $files;
    }
}
