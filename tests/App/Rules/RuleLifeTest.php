<?php

declare(strict_types=1);

namespace Tests\App\Rules;

use App\Demo\Demo;
use App\Store\JsonLines;
use App\Store\Rules\RuleFile;
use App\Store\Rules\RuleSchema;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\AppTestCase;
use VividLedger\Condition\ConditionReader;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Condition\Statements;
use VividLedger\People\PersonExpressions;
use VividLedger\Rule\Guard\RepeatGuards;
use VividLedger\Rule\Line\Lines;
use VividLedger\Rule\Recipient\Recipients;
use VividLedger\Rule\Trigger\Triggers;
use VividLedger\Rule\Value\AssignedValues;

/** A rule from its first draft to its retirement, and as a file. */
final class RuleLifeTest extends AppTestCase
{
    public function test_pages_follow_one_another_and_never_change(): void
    {
        $file = $this->demoFile('010-urgent-ticket');
        $id = $this->inForce($file);
        $draft = ['name' => 'Urgent, tell everyone', 'lines' => [$file['lines'][0]]] + $file;
        $written = $this->as('ines.okafor', 'PUT', "rules/{$id}/draft", ['version' => 2, 'file' => $draft])->assertOk()->json();
        self::assertSame([], $written['reading']['problems']);

        $rule = $this->as('odile.march', 'GET', "rules/{$id}")->json();
        self::assertSame(
            [true, 1, 'Urgent ticket, tell the lead', $draft],
            [$rule['hasDraft'], $rule['page'], $rule['name'], $rule['file']],
        );
        self::assertCount(1, $this->ticket(['priority' => 'urgent'])['fired'], 'page 1 is in force while page 2 is written');
        self::assertSame(1, DB::table('tasks')->count());

        $this->as(
            'ines.okafor',
            'POST',
            "rules/{$id}/publish",
            ['version' => $written['draftVersion']],
        )->assertOk()->assertJsonPath('page', 2)->assertJsonPath('name', 'Urgent, tell everyone');
        $this->ticket(['priority' => 'urgent']);
        self::assertSame(1, DB::table('tasks')->count(), 'page 2 gives no task');
        self::assertSame(
            [[2, $draft], [1, $file]],
            array_map(
                static fn (array $page): array => [$page['number'], $page['file']],
                $this->as('odile.march', 'GET', "rules/{$id}/pages")->json(),
            ),
        );

        foreach (['paused', 'in_force', 'retired', 'in_force'] as $status) {
            $this->as('ines.okafor', 'POST', "rules/{$id}/status", ['status' => $status])->assertOk()->assertJsonPath('status', $status);
            self::assertCount($status === 'in_force' ? 1 : 0, $this->ticket(['priority' => 'urgent'])['fired'], $status);
        }
        $this->assertRefused($this->as('ines.okafor', 'POST', "rules/{$id}/status", ['status' => 'in_force']), 409, 'wrong_state');
        self::assertSame(
            ['rule_in_force', 'rule_retired', 'rule_in_force', 'rule_paused', 'rule_in_force', 'rule_in_force'],
            array_column($this->as('odile.march', 'GET', 'ledger?show=administration')->json('entries'), 'kind'),
        );
    }

    public function test_an_unfinished_rule_is_kept_but_not_put_in_force(): void
    {
        $file = ['lines' => [['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => '']]] + $this->demoFile('010-urgent-ticket');
        $rule = $this->as('ines.okafor', 'POST', 'rules', ['file' => $file])->assertCreated()->json();
        self::assertSame(['/lines/0/title'], array_column($rule['reading']['problems'], 'at'));
        $this->assertRefused(
            $this->as('ines.okafor', 'POST', "rules/{$rule['id']}/publish", ['version' => 1]),
            422,
            'unfinished_rule',
            '/lines/0/title',
        );
        $this->assertRefused($this->as('ines.okafor', 'GET', "rules/{$rule['id']}/matching"), 422, 'unfinished_rule', '/lines/0/title');
        $this->assertRefused(
            $this->as('joost.perrin', 'PUT', "rules/{$rule['id']}/draft", ['version' => 7, 'file' => $file]),
            409,
            'stale_version',
        );
        $this->assertRefused(
            $this->as('joost.perrin', 'PUT', "rules/{$rule['id']}/draft", ['version' => 1, 'file' => ['on' => 'customer'] + $file]),
            422,
            'unknown_type',
            '/on',
        );
        $this->as('ines.okafor', 'DELETE', "rules/{$rule['id']}/draft")->assertNoContent();
        $this->assertRefused($this->as('ines.okafor', 'GET', "rules/{$rule['id']}"), 404, 'not_found');
    }

    public function test_a_rule_that_was_republished_does_not_fire_again_for_a_record_it_has_fired_for(): void
    {
        $file = $this->demoFile('060-first-call');
        $id = $this->inForce($file);
        $customer = $this->customer();
        self::assertSame(1, DB::table('tasks')->count());
        $this->as(
            'ines.okafor',
            'PUT',
            "rules/{$id}/draft",
            ['version' => 2, 'file' => ['name' => 'First call, again'] + $file],
        )->assertOk();
        $this->as('ines.okafor', 'POST', "rules/{$id}/publish", ['version' => 3])->assertOk();
        $saved = $this->change($customer, ['notes' => 'x'], 'jonas.pike');

        self::assertSame([], $saved['fired']);
        self::assertSame(
            'guard_held',
            $this->as('ines.okafor', 'GET', "ledger/{$saved['entry']}/answers?rule={$id}")->json('0.verdict.reason'),
        );
    }

    public function test_the_numbers_before_putting_in_force_are_those_of_the_list(): void
    {
        $this->ticket(['priority' => 'urgent']);
        $this->ticket(['priority' => 'urgent', 'status' => 'closed']);
        $this->ticket();
        $rule = $this->as('ines.okafor', 'POST', 'rules', ['file' => $this->demoFile('010-urgent-ticket')])->json();

        $this->as(
            'ines.okafor',
            'GET',
            "rules/{$rule['id']}/matching",
        )->assertOk()->assertJsonPath('matching', 1)->assertJsonPath('total', 3)->assertJsonCount(1, 'examples');
    }

    public function test_every_demo_rule_goes_out_as_a_file_and_comes_back_the_same(): void
    {
        $this->app->make(Demo::class)->loadKept();
        foreach (glob(database_path('demo/rules/*.json')) ?: [] as $path) {
            $file = $this->demoFile(basename($path, '.json'));
            $id = $this->as('ines.okafor', 'POST', 'rules', ['file' => $file])->json('id');
            $text = (string) $this->as('odile.march', 'GET', "rules/{$id}/file")->assertOk()->getContent();
            $answer = $this->as('ines.okafor', 'POST', 'rules/import', ['text' => $text]);
            // One that somebody is still writing says so, and travels as it is.
            self::assertStringContainsString(str_contains($path, '.draft.') ? '"vivid-ledger/rule-draft/1"' : '"vivid-ledger/rule/1"',
                $text);
            self::assertEquals($file, $answer->assertCreated()->json('file'));
            $schema = str_contains($path, '.draft.') ? RuleFile::DRAFT_SCHEMA : RuleSchema::PATH;
            self::assertSame([], RuleSchema::problems(json_decode($text), $schema), $path);
            self::assertSame([], RuleSchema::problems(json_decode((string) file_get_contents($path)), $schema), $path);
        }
    }

    /**
     * @return iterable<string, array{string, string, int, string}> what to replace in a sound file, by what, the line at fault, the place
     */
    public static function spoiled(): iterable
    {
        yield 'not JSON' => ['"fires": {', '"fires": ', 26, ''];
        yield 'another format' => ['rule/1', 'rule/9', 3, '/format'];
        yield 'a member that is not known' => ['"name":', '"colour": "red", "name":', 1, ''];
        yield 'an operator that is not known' => ['"kind": "is_not"', '"kind": "resembles"', 19, '/onlyIf/of/1/kind'];
        yield 'a field that is not there' => ['"field": "status"', '"field": "mood"', 20, '/onlyIf/of/1/field'];
        yield 'a value that is not offered' => ['"value": "closed"', '"value": "gone"', 21, '/onlyIf/of/1/value'];
        yield 'a title that merges nothing' => ['{subject}', '{contact.shoe}', 54, '/lines/1/title'];
        yield 'an amount that is none' => ['"amount": 4', '"amount": "four"', 56, '/lines/1/due/amount'];
    }

    #[DataProvider('spoiled')]
    public function test_a_malformed_file_is_refused_line_by_line(string $search, string $replace, int $line, string $at): void
    {
        $id = $this->as('ines.okafor', 'POST', 'rules', ['file' => $this->demoFile('010-urgent-ticket')])->json('id');
        $text = (string) $this->as('ines.okafor', 'GET', "rules/{$id}/file")->getContent();
        self::assertStringContainsString($search, $text);
        $count = DB::table('rules')->count();
        $answer = $this->as('ines.okafor', 'POST', 'rules/import', ['text' => str_replace($search, $replace, $text)]);

        $this->assertRefused($answer, 422, 'malformed_rule', $at);
        self::assertContains(
            [$at, $line],
            array_map(static fn (array $problem): array => [$problem['at'], $problem['line']], $answer->json('problems')),
            (string) $answer->getContent(),
        );
        self::assertSame($count, DB::table('rules')->count());
    }

    public function test_a_malformed_file_is_told_in_plain_words(): void
    {
        $text = '{"format": "vivid-ledger/rule/1", "colour": "red", "name": "", "on": "Ticket", "when": {"kind": "sometimes"},
            "fires": {"kind": "every_time", "often": true},
            "lines": [{"kind": "set_fields", "set": []}, {"kind": "give_task", "to": {"kind": "owner"}, "title": 7,
            "due": {"amount": -1, "unit": "moon"}}, {"kind": "give_task"}]}';
        $said = array_column($this->as('ines.okafor', 'POST', 'rules/import', ['text' => $text])->json('problems'), 'message', 'at');

        self::assertEquals([
            '' => 'Not known here: colour.',
            '/name' => 'This must not be empty.',
            '/on' => '‘Ticket’ is no name of a field: lower-case letters, digits and underlines, joined by dots.',
            '/when/kind' => '‘sometimes’ is not known here. It can be created, created_or_changed, changed, deleted, related, date, '
                .'quiet, timetable, comment, reply, slip_answered, file, task_done, hook_brought, by_hand.',
            '/fires' => 'Not known here: often.',
            '/lines/0/set' => 'At least one is needed here.',
            '/lines/1/title' => '‘7’ does not fit here, which takes text.',
            '/lines/1/due/unit' => '‘moon’ is not known here. It can be minute, hour, day, week, month, year, working_hour, working_day.',
            '/lines/2' => 'Missing here: to, title.',
        ], $said);
        $said = array_column(
            $this->as('ines.okafor', 'POST', 'rules/import', ['text' => '{"format": "other/1", "lines": {}}'])->json('problems'),
            'message',
            'at',
        );
        self::assertSame(
            [
                '/format' => '‘other/1’ is not known here. It has to be vivid-ledger/rule/1.',
                '/lines' => 'This does not fit here, which takes a list [ ].',
            ],
            array_intersect_key($said, ['/format' => 0, '/lines' => 0]),
        );
    }

    public function test_the_published_schema_knows_every_kind(): void
    {
        $schema = json_decode((string) file_get_contents(base_path('docs/schema/rule.schema.json')), true, 64, JSON_THROW_ON_ERROR);
        $kinds = static fn (array $classes): array => array_map(static fn (string $class): string => $class::kind(), $classes);

        self::assertEqualsCanonicalizing(
            [
                ...array_keys(ConditionReader::GROUPS), ...array_keys(Operators::all()), ...array_keys(Statements::byKind()),
            ],
            $schema['$defs']['condition']['properties']['kind']['enum'],
        );
        self::assertEqualsCanonicalizing($kinds(Triggers::ALL), $schema['properties']['when']['properties']['kind']['enum']);
        self::assertEqualsCanonicalizing($kinds(RepeatGuards::ALL), $schema['properties']['fires']['properties']['kind']['enum']);
        self::assertEqualsCanonicalizing($kinds(Lines::ALL), $schema['$defs']['line']['properties']['kind']['enum']);
        self::assertEqualsCanonicalizing($kinds(AssignedValues::ALL), $schema['$defs']['assigned']['properties']['kind']['enum']);
        self::assertEqualsCanonicalizing($kinds(Recipients::ALL), $schema['$defs']['recipient']['properties']['kind']['enum']);
        self::assertEqualsCanonicalizing($kinds(PersonExpressions::ALL), $schema['$defs']['person']['properties']['kind']['enum']);
    }

    public function test_lines_of_json_are_counted(): void
    {
        $text = "{\n \"a\": [1,\n  {\"b/c\": \"x\\\"]\\n\"}],\n \"d\": true\n}";
        self::assertSame(['' => 1, '/a' => 2, '/a/0' => 2, '/a/1' => 3, '/a/1/b~1c' => 3, '/d' => 4], JsonLines::of($text));
        foreach (["{\n\"a\": 1,\n}" => 3, "{\n\"a\": 1\n\"b\": 2}" => 3, "[1,\n2\n" => 3, "{\"a\"\n\n: tru}" => 3, "{\"a\":\n\n\"open" => 3,
            "[1}\n" => 1, '' => 1] as $bad => $line) {
            self::assertSame($line, JsonLines::firstBad($bad), $bad);
        }
    }
}
