<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\Exception\StaleElementReferenceException;
use Facebook\WebDriver\Remote\RemoteExecuteMethod;
use Facebook\WebDriver\Remote\RemoteWebElement;
use Facebook\WebDriver\WebDriverKeys as Key;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Browser\Support\BrowserTestCase;

/**
 * The eight rules that practitioners write first, from nothing and in force: by keyboard in one sentence, by mouse from word to word. Both
 * come to the same rule, in as few presses as are written here.
 */
final class EightRulesTest extends BrowserTestCase
{
    private const BOX = '[aria-label="The rule in one sentence"]';

    /** What reads so and can be pressed, without its tick and without how many records have it. */
    private const READS_SO = <<<'JS'
        // What was pressed last is worded first.
        if ([...document.querySelectorAll('[aria-live=polite]')].some((one) => one.textContent.includes('saving'))) return null;
        const reads = (one) => one.textContent.replace(/\s+/g, ' ').replace(/^ ?✓ | [\d.]+ now ?$/g, '').trim();
        const open = document.querySelector('.floating, dialog[open]');
        const pressed = open ? '.floating [role=option], .floating button, .floating label, dialog[open] button, [data-word]'
            : 'button, [data-word], input';
        const found = [...document.querySelectorAll(pressed)].filter((one) => one.checkVisibility({ visibilityProperty: true })
            && !one.disabled && [reads(one), one.getAttribute('aria-label')].includes(arguments[0]))[arguments[1]];
        // Pressed at the pace of a hand, which hits nothing that is still on its way to its place.
        if (!found) return null;
        const at = JSON.stringify([arguments[0], found.getBoundingClientRect()]);
        if (window.seen?.at !== at) window.seen = { at, since: performance.now() };
        return performance.now() - window.seen.since > 150 ? found : null;
        JS;

    /**
     * The type of record, the rule in one sentence, and the same by mouse from word to word. A step is what is pressed; "=" stands before
     * what is typed, "/" before what is taken from a native list.
     *
     * @return iterable<string, array{string, string, list<string>}>
     */
    public static function rules(): iterable
    {
        yield 'an urgent ticket is told' => [
            'tickets', 'When a ticket is created, only if priority is urgent, remind the owner’s manager "Urgent: {subject}"',
            [
                'is created or changed', 'is created', '+ condition', 'Priority', 'Urgent', '+ a line', 'Remind', '=Urgent: {subject}',
                'Done', 'the owner', 'the owner’s manager',
            ],
        ];
        yield 'a task is a day late' => [
            'tickets', 'When a ticket comes to 1 day after due at 09:00, only if status is not closed, remind the owner "A day late"',
            [
                'is created or changed', 'comes to a date', 'the day of', '=1', 'Done', '+ condition', 'Status', 'is', 'is not', 'Closed',
                '+ a line', 'Remind', '=A day late', 'Done',
            ],
        ];
        yield 'thirty days before an end, each year' => [
            'agreements', 'When an agreement comes to 30 days before end at 09:00, every year, remind the owner "Renewal of {number}"',
            [
                'is created or changed', 'comes to a date', '+ every year', 'every year', 'Start', 'End', 'the day of', '=30', '/before',
                'Done', '+ a line', 'Remind', '=Renewal of {number}', 'Done',
            ],
        ];
        yield 'won for the first time' => [
            'quotes', 'When a quote is won, give the owner a task "Say thank you" due 1 day later, only once',
            [
                'is created or changed', 'is changed', 'any field', 'Stage', 'Done', '+ to', 'Won', 'when the conditions become true',
                'once per quote', '+ a line', 'Give a task', '=Say thank you', 'Done',
            ],
        ];
        yield 'a discount in two levels' => [
            'quotes', 'When a quote is created or changed, only if discount is over 12 %, ask for a sign-off by the owner’s manager, '
                .'then the next of Direction in turn',
            [
                '+ condition', 'Discount', 'is', 'is over', '=12', 'Done', '+ a line', 'Ask for a sign-off', '+ then', 'another step',
                '2 the owner’s manager', 'the next of Direction in turn',
            ],
        ];
        yield 'untouched for two working days' => [
            'tickets', 'When a ticket has no activity for 2 working days, remind the owner "Untouched"',
            [
                'is created or changed', 'is quiet for a while', '3 days', '=2', '/working days', 'Done', '+ a line', 'Remind',
                '=Untouched', 'Done',
            ],
        ];
        yield 'a morning list' => [
            'tickets', 'When a ticket is looked at every day at 08:00 from 2026-12-02, on working days, together for each, by the owner'
                .', only if status is not closed, send them an e-mail about "Your list" with the columns Due and Subject',
            [
                'is created or changed', 'is looked at by a timetable', 'Done', 'one by one',
                'together for each, by the owner', '+ condition', 'Status', 'is', 'is not', 'Closed', '+ a line', 'Send a list', 'Due',
                'Subject', 'Done',
            ],
        ];
        yield 'a slip with nudge and pass-on' => [
            'visits', 'When a visit is created, send the Partner the reply slip "Crew visit", reminded every 7 days, answered within 7 days'
                .', and then pass it on to the next Partner',
            [
                'is created or changed', 'is created', '+ a line', 'Send a reply slip', 'the Partner', 'Cancel', '+ a kept one',
                'Crew visit', '+ reminded', 'Done', '+ answered within', 'Done', '+ pass on',
                'pass it on to the next of a kind', 'Partner',
            ],
        ];
    }

    /** @param  list<string>  $steps */
    #[DataProvider('rules')]
    public function test_it_is_written_from_nothing_by_keyboard_and_by_mouse(string $type, string $sentence, array $steps): void
    {
        $this->signIn('ines.okafor');
        $said = $this->byKeyboard($type, $sentence);
        $chosen = $this->byMouse($type, $steps);
        self::assertSame($this->meant($said), $this->meant($chosen), 'said or chosen, it is the same rule');
    }

    /** @return array<string, mixed> the file of the rule in force */
    private function byKeyboard(string $type, string $sentence): array
    {
        $this->keys(Key::CONTROL.'k');
        $this->see('[role=dialog] input:focus');
        $this->letters("rule {$type}");
        $this->see('[data-index="0"]', "New rule for {$type}");
        $this->keys(Key::ENTER);
        $this->see(self::BOX.':focus');
        $this->letters($sentence);
        $this->keys(Key::ENTER);
        $this->notSee(self::BOX);
        $this->keys(Key::CONTROL.Key::ENTER);
        $this->see('dialog', 'Put page 1 in force?');
        $this->see('dialog button:focus', 'Put in force');
        $this->keys(Key::ENTER);

        return $this->inForce();
    }

    /**
     * @param  list<string>  $steps
     * @return array<string, mixed>
     */
    private function byMouse(string $type, array $steps): array
    {
        $this->open('/rules');
        foreach (['New rule', ucfirst($type), ...$steps] as $step) {
            match ($step[0]) {
                '=' => $this->letters(substr($step, 1)),
                '/' => $this->ofNative(substr($step, 1)),
                default => $this->click($step),
            };
        }
        $this->notSee('.floating');
        $this->click('Name of the rule');
        $this->letters('By mouse');
        $this->click('Put in force…');
        $this->see('dialog', 'Put page 1 in force?');
        $this->click('Put in force');

        return $this->inForce();
    }

    /** @return array<string, mixed> */
    private function inForce(): array
    {
        $this->see('.stamp', 'In force');
        $id = (int) basename((string) parse_url($this->browser->getCurrentURL(), PHP_URL_PATH));
        $rule = $this->api('GET', "rules/{$id}");
        // What it would do to the others that are written here is another matter.
        $this->api('POST', "rules/{$id}/status", ['status' => 'retired']);
        self::assertIsArray($rule['file']);

        return $rule['file'];
    }

    /** Typed into whatever has the keyboard; that something has it is part of the promise. */
    private function letters(string $text): void
    {
        $this->until(fn (): bool => $this->browser->executeScript(
            'return document.activeElement.matches("input, textarea, [contenteditable]")',
        ) === true, "for something to take “{$text}”");
        $this->browser->switchTo()->activeElement()->sendKeys($text);
    }

    /** A native list is opened, and something taken from it. */
    private function ofNative(string $label): void
    {
        $this->until(fn (): bool => $this->clicked($this->browser->executeScript(
            'return [...document.querySelectorAll(".floating option")].find((one) => one.textContent === arguments[0])', [$label],
        )), "to choose “{$label}”");
    }

    /** @param  mixed  $found what a script found: the only word for an element on the way back is its id */
    private function clicked(mixed $found): bool
    {
        if (is_array($found)) {
            (new RemoteWebElement(new RemoteExecuteMethod($this->browser), (string) current($found), true))->click();
        }

        return is_array($found);
    }

    /** What is offered in what is open comes before what stands on the page. */
    private function click(string $text): void
    {
        $which = $text[0] === '2' ? 2 : 1;
        $text = preg_replace('/^2 /', '', $text);
        $this->until(function () use ($text, $which): bool {
            try {
                return $this->clicked($this->browser->executeScript(self::READS_SO, [$text, $which - 1]));
            } catch (StaleElementReferenceException) {
                // It was drawn anew meanwhile.
                return false;
            }
        }, "to press “{$text}”");
    }

    /**
     * @param  array<string, mixed>  $file
     * @return array<string, mixed> without its name, its order and the day on which it was written
     */
    private function meant(array $file): array
    {
        unset($file['name'], $file['when']['from']);
        // Places for answers that came with a sign-off and stayed empty say nothing, nor does the name by which only they wait for it.
        while (($file['lines'][count($file['lines']) - 1]['that']['of'][0]['kind'] ?? '') === 'sign_off_is') {
            array_pop($file['lines']);
            unset($file['lines'][0]['key']);
        }
        // What goes without saying.
        $file['lines'] = array_map(static fn (array $line): array => array_diff_assoc($line, ['channel' => 'email']), $file['lines']);
        $sorted = function (mixed $value) use (&$sorted): mixed {
            if (! is_array($value)) {
                return $value;
            }
            array_is_list($value) || ksort($value);

            return array_map($sorted, $value);
        };
        $meant = $sorted($file);
        self::assertIsArray($meant);

        return $meant;
    }
}
