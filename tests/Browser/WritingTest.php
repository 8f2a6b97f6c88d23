<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use Tests\Browser\Support\BrowserTestCase;

/** Writing a rule goes by itself: what is chosen leads to the next gap, typing opens a word, Esc leaves everything as it is. */
final class WritingTest extends BrowserTestCase
{
    public function test_stage_is_won_takes_one_press_and_five_keys_and_two_enters(): void
    {
        $this->signIn('ines.okafor');
        $rule = $this->draft([
            'name' => 'Won', 'on' => 'quote', 'when' => ['kind' => 'created_or_changed'], 'onlyIf' => ['kind' => 'all', 'of' => []],
            'fires' => ['kind' => 'becomes_true'], 'lines' => [['kind' => 'comment', 'text' => 'x']],
        ]);
        $this->open("/rules/{$rule}");
        $this->press('+ condition');
        $this->see('.floating input:focus');
        // Whatever is typed before the next editor stands there waits for it.
        $this->typed('sta', Key::ENTER, 'wo', Key::ENTER);
        $this->until(fn (): bool => in_array('Stage is Won', $this->rows(), true), 'for the condition');
        $this->notSee('.floating');
        self::assertSame(['field' => 'stage', 'kind' => 'is', 'value' => 'won'], $this->file($rule)['onlyIf']['of'][0]);

        // Typing on the word opens it with what is typed, and Esc leaves it.
        $this->press('Won', '[data-word]');
        $this->see('.floating');
        $this->keys(Key::ESCAPE);
        $this->notSee('.floating');
        $this->typed('lo', Key::ENTER);
        $this->until(fn (): bool => in_array('Stage is Lost', $this->rows(), true), 'for the other choice');

        // A row that was begun and left again is no row.
        $before = $this->file($rule);
        $this->press('+ condition');
        $this->see('.floating input:focus');
        $this->keys(Key::ESCAPE);
        $this->notSee('.floating');
        $this->until(fn (): bool => ! in_array('choose a field', $this->rows(), true), 'for the empty row to go');
        self::assertSame($before, $this->file($rule));
    }

    public function test_ctrl_k_takes_the_keyboard_wherever_it_was(): void
    {
        $this->signIn('ines.okafor');
        $this->tab('Records');
        $this->see('input[type=search]')->click();
        $this->keys(Key::CONTROL.'k');
        $this->see('[role=dialog] input:focus');
        $this->keys('Ledger', Key::ENTER);
        $this->see('.spine a.on', 'Ledger');
        $this->keys(Key::CONTROL.'k');
        $this->see('[role=dialog] input:focus');
        $this->keys(Key::ESCAPE);
        $this->notSee('[role=dialog]');
    }

    /** Every editor of every word, opened and kept with nothing changed: the rule is what it was. */
    public function test_what_is_opened_and_kept_unchanged_is_unchanged(): void
    {
        $this->signIn('ines.okafor');
        // Its own, so that the journey can be walked again.
        $name = 'Round trip '.bin2hex(random_bytes(4));
        $ladder = $this->api('POST', 'ladders', ['name' => $name, 'rungs' => [
            [
                'after' => ['amount' => 1, 'unit' => 'working_day', 'time' => '09:30', 'roll' => 'next', 'clock' => 'owner'],
                'to' => ['kind' => 'in_field', 'path' => 'owner'], 'do' => ['tell', 'raise'],
            ],
        ]]);
        $person = ['kind' => 'manager', 'of' => ['kind' => 'in_field', 'path' => 'customer.owner']];
        $file = [
            'name' => 'Round trip', 'on' => 'ticket', 'when' => [
                'kind' => 'date', 'field' => 'due', 'amount' => -3, 'unit' => 'working_day', 'time' => '08:30', 'roll' => 'next',
                'clock' => 'owner', 'onDayOnly' => true, 'byHand' => true,
            ],
            'onlyIf' => ['kind' => 'all', 'of' => [
                [
                    'kind' => 'one_of', 'field' => 'priority', 'values' => ['high', 'urgent'],
                ], ['kind' => 'in_team', 'field' => 'owner', 'value' => 'Service Quayside'],
                ['kind' => 'under_person', 'field' => 'owner', 'value' => 'edda.marlow'],
                ['kind' => 'over', 'field' => 'cost', 'value' => '12.50'], [
                    'kind' => 'is', 'field' => 'owner.team', 'value' => 'Service Quayside',
                ], [
                    'kind' => 'under', 'field' => 'due', 'value' => ['kind' => 'moment', 'amount' => -2, 'unit' => 'day'],
                ],
                ['kind' => 'formula', 'formula' => 'cost * 0.00009 > 1'], ['kind' => 'contains', 'field' => 'subject', 'value' => 'ficus'],
            ]],
            'fires' => ['kind' => 'once_in_period', 'period' => ['amount' => 2, 'unit' => 'week']],
            'lines' => [
                [
                    'kind' => 'give_task', 'to' => $person, 'title' => 'Call {customer.name}', 'notes' => 'By {owner}',
                    'due' => ['amount' => 2, 'unit' => 'working_day', 'time' => '16:00', 'roll' => 'previous', 'clock' => 'owner'],
                    'key' => 'call',
                ],
                [
                    'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Still open',
                    'at' => ['kind' => 'late', 'line' => 'call', 'amount' => 1, 'unit' => 'day', 'time' => '09:00'],
                ],
                [
                    'kind' => 'set_fields',
                    'set' => [
                        ['field' => 'status', 'to' => ['kind' => 'value', 'value' => 'waiting']],
                        ['field' => 'review', 'to' => ['kind' => 'value', 'value' => 'needed']],
                    ],
                    'at' => ['kind' => 'after', 'amount' => 3, 'unit' => 'day', 'time' => '10:00', 'roll' => 'next', 'clock' => 'owner'],
                ],
                ['kind' => 'escalate', 'ladder' => $name],
            ],
            'until' => [
                'kind' => 'any',
                'of' => [['kind' => 'happened', 'event' => 'reply'], ['kind' => 'is', 'field' => 'status', 'value' => 'closed']],
            ],
            'never' => [
                'outside' => ['from' => '08:00', 'to' => '18:00', 'workingDays' => true, 'clock' => 'owner'],
                'moreThan' => ['messages' => 2, 'amount' => 1, 'unit' => 'week', 'then' => 'drop'],
            ],
        ];
        $timetable = ['name' => 'Round trip by timetable', 'on' => 'ticket', 'fires' => ['kind' => 'every_time'],
            'when' => [
                'kind' => 'timetable', 'rrule' => 'FREQ=MONTHLY;INTERVAL=2;BYMONTHDAY=31;COUNT=5', 'time' => '07:15',
                'from' => '2026-11-02', 'clock' => 'person', 'workingDays' => true, 'per' => ['kind' => 'owner'],
            ],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is_not', 'field' => 'status', 'value' => 'closed']]],
            'lines' => [['kind' => 'send_list', 'subject' => 'Your day', 'body' => 'Hello', 'columns' => ['subject', 'customer.name'],
                'by' => 'due', 'days' => 4, 'workingDays' => true, 'tasks' => true, 'and' => [
                    [
                        'on' => 'agreement', 'per' => ['kind' => 'owner'], 'columns' => ['title', 'end'], 'by' => 'end',
                        'onlyIf' => ['kind' => 'is', 'field' => 'status', 'value' => 'running'],
                    ],
                ]]]];
        foreach ([$file, $timetable] as $one) {
            $rule = $this->draft($one);
            $before = $this->file($rule);
            $this->open("/rules/{$rule}");
            $this->see('[data-word="/fires|choose"]');
            $words = $this->browser->executeScript(
                'return [...document.querySelectorAll("[data-word]:not(.more):not(.ghost)")].map((word) => word.dataset.word)',
            );
            $tried = 0;
            foreach (is_array($words) ? $words : [] as $word) {
                $tried += $this->kept($word) ? 1 : 0;
                self::assertSame($before, $this->file($rule), "after {$word}");
            }
            self::assertGreaterThan(12, $tried);
        }
        // The ladder as well.
        $this->open('/setup/ladders');
        $this->see('button', $name)->click();
        $this->see('input[aria-label="Name"]');
        $this->press('Save');
        $this->see('[aria-live=polite]', 'is saved');
        $after = array_values(array_filter($this->api('GET', 'ladders'), static fn (array $one): bool => $one['name'] === $name))[0];
        self::assertSame($ladder['rungs'], $after['rungs']);
    }

    /** Types as a person does: into whatever has the keyboard at that moment. */
    private function typed(string ...$keys): void
    {
        $actions = [];
        foreach (mb_str_split(implode('', $keys)) as $key) {
            array_push($actions, ['type' => 'keyDown', 'value' => $key], ['type' => 'keyUp', 'value' => $key]);
        }
        $this->browser->executeCustomCommand(
            '/session/:sessionId/actions',
            'POST',
            ['actions' => [['type' => 'key', 'id' => 'keyboard', 'actions' => $actions]]],
        );
    }

    /** Opens a word and keeps it as it is: a form is sent, a choice is taken as it stands. */
    private function kept(string $word): bool
    {
        $this->browser->executeScript('document.querySelector(`[data-word="${CSS.escape(arguments[0])}"]`).click()', [$word]);
        $this->until(
            fn (): bool => $this->browser->executeScript(
                'return document.querySelector(".floating form, .floating [role=listbox] [role=option], dialog[open]") !== null',
            ) === true,
            "for {$word} to open",
        );
        $this->browser->executeScript('
            const form = document.querySelector(".floating form");
            const list = document.querySelector(".floating [role=listbox]");
            const done = [...document.querySelectorAll(".floating .keys button")].find((button) => button.textContent.trim() === "Done");
            if (form) form.requestSubmit();
            else if (list?.getAttribute("aria-multiselectable") === "true") done.click();
            else document.querySelector(".floating input").dispatchEvent(
                new KeyboardEvent("keydown", { key: "Enter", bubbles: true, cancelable: true }),
            );
        ');
        if ($this->browser->executeScript('return document.querySelector("dialog[open]") !== null') === true) {
            $this->keys(Key::ESCAPE);
            $this->notSee('dialog[open]');

            return false;
        }
        $this->notSee('.floating');

        return true;
    }

    /** @param  array<string, mixed>  $file */
    private function draft(array $file): int
    {
        return (int) $this->api('POST', 'rules', ['file' => $file])['id'];
    }

    /** @return array<string, mixed> */
    private function file(int $rule): array
    {
        return self::sorted($this->api('GET', "rules/{$rule}")['file']);
    }

    /**
     * The order of the members of an object says nothing.
     *
     * @param  array<array-key, mixed>  $json
     * @return array<array-key, mixed>
     */
    private static function sorted(array $json): array
    {
        if (! array_is_list($json)) {
            ksort($json);
        }

        return array_map(static fn (mixed $below): mixed => is_array($below) ? self::sorted($below) : $below, $json);
    }
}
