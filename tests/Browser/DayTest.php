<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverDimension;
use Facebook\WebDriver\WebDriverKeys as Key;
use Tests\Browser\Support\BrowserTestCase;

/** A member's day: the morning at the desk by keyboard alone, and on the road with a phone. */
final class DayTest extends BrowserTestCase
{
    public function test_a_morning_by_keyboard_alone(): void
    {
        $this->signIn('lena.abara');
        $mark = 'Morning '.bin2hex(random_bytes(3));
        $id = $this->api('POST', 'records/ticket', ['values' => [
            'subject' => $mark, 'customer' => 1, 'status' => 'open', 'priority' => 'low', 'owner' => 'lena.abara',
        ]])['record']['id'];
        foreach (['First', 'Second'] as $title) {
            $this->api('POST', 'tasks', ['title' => "{$title} {$mark}", 'recordType' => 'ticket', 'recordId' => $id,
                'dueAt' => $title === 'First' ? '2020-01-01T09:00:00Z' : '2020-01-02T09:00:00Z']);
        }
        $keys = fn (array|string $keys) => $this->browser->getKeyboard()->sendKeys($keys);
        $this->open('/');
        $this->see('h1');
        // To the tasks by their name, down to the first, done with what came of it.
        $keys([Key::CONTROL, 'k']);
        $this->see('.finder input');
        $keys([Key::CONTROL]);
        $this->see('.finder input')->sendKeys('tasks'.Key::ENTER);
        $this->see('h1', 'Tasks');
        $this->see('[data-task]', "First {$mark}");
        $keys('?');
        $this->see('dialog [data-keys]', 'done, with what came of it');
        $keys(Key::ESCAPE);
        $this->notSee('dialog[open]');
        $keys(Key::ARROW_DOWN);
        $this->see('.leaf.right h2', $mark);
        $keys('o');
        $this->see('dialog textarea')->sendKeys('They are happy');
        $this->press('Done', 'dialog button');
        $this->notSee('[data-task]', "First {$mark}");
        // The second gets another date, said as one says it.
        $keys([Key::ARROW_DOWN, 'd']);
        $this->see('dialog [aria-label="Due"]')->clear()->sendKeys('+7'.Key::TAB);
        $this->press('Reschedule');
        $this->see('[role=status]', '1 task rescheduled.');
        // One of her own, and over to its record by a word of its name.
        $keys([Key::CONTROL, 'k']);
        $keys([Key::CONTROL]);
        $this->see('.finder input')->sendKeys($mark);
        $this->see('.finder button', $mark);
        $this->see('.finder input')->sendKeys(Key::ENTER);
        $this->see('h1', $mark);
        $this->see('.leaf.right', 'did “First');
        $this->see('.leaf.right', 'They are happy');
    }

    public function test_today_is_not_the_same_page_for_all(): void
    {
        $mark = 'Team '.bin2hex(random_bytes(3));
        $this->signIn('lena.abara');
        $id = $this->api('POST', 'records/ticket', ['values' => [
            'subject' => $mark, 'customer' => 1, 'status' => 'open', 'priority' => 'low', 'owner' => 'lena.abara',
        ]])['record']['id'];
        $this->api('POST', 'tasks', [
            'title' => $mark, 'recordType' => 'ticket', 'recordId' => $id, 'dueAt' => '2020-01-01T09:00:00Z',
        ]);
        $this->open('/');
        $this->see('[aria-label=Late]', $mark);
        $this->notSee('[aria-label="What is shown"]');
        // Done from here, and taken back.
        $this->see("input[aria-label=\"Done: {$mark}\"]")->click();
        $this->notSee('[aria-label=Late]', $mark);
        $this->press('Undo');
        $this->see('[aria-label=Late]', $mark);
        // A word to somebody, by their name.
        $this->open("/records/ticket/{$id}");
        $this->see('textarea[aria-label=Comment]')->sendKeys('@pri');
        $this->see('[role=listbox] [role=option]', 'Priya Lindqvist');
        $this->see('textarea[aria-label=Comment]')->sendKeys(Key::ENTER.'please look');
        $this->press('Comment');
        $this->see('.leaf.right .word.person', 'Priya Lindqvist');
        // Carried to this week on the screen of tasks, and back.
        $this->open('/tasks');
        $this->see('[data-task]', $mark);
        $this->browser->executeScript(
            'const row = [...document.querySelectorAll("[data-task]")].find((one) => one.textContent.includes(arguments[0])); '
            .'const data = new DataTransfer(); row.dispatchEvent(new DragEvent("dragstart", {bubbles: true, dataTransfer: data})); '
            .'requestAnimationFrame(() => { const week = document.querySelector("[role=group][aria-label=\'This week\']"); '
            .'for (const kind of ["dragover", "drop"]) week.dispatchEvent(new DragEvent(kind, {bubbles: true, cancelable: true, '
            .'dataTransfer: data})); row.dispatchEvent(new DragEvent("dragend", {bubbles: true, dataTransfer: data})); });', [$mark],
        );
        $this->see('[role=group][aria-label="This week"]', $mark);
        $this->press('Undo');
        $this->see('[role=group][aria-label=Late]', $mark);
        $this->signOut();

        $this->signIn('priya.lindqvist');
        $this->see('.bell')->click();
        $this->see('[data-notices] a', 'Lena Abara: @priya.lindqvist please look');
        $this->browser->getKeyboard()->sendKeys(Key::ESCAPE);
        $this->see('table tr', 'Lena Abara');
        $this->see('.leaf.left .line', $mark);
        $this->press('My day', '.segments button');
        $this->see('figure [title]');
        $this->notSee('.leaf.left', $mark);
        $this->signOut();

        $this->signIn('ines.okafor');
        $this->see('.leaf.left ul', 'fired today');
        $this->see('.leaf.right', 'Latest entries');
    }

    public function test_on_the_road_with_a_phone(): void
    {
        $this->browser->manage()->window()->setSize(new WebDriverDimension(390, 844));
        $this->signIn('lena.abara');
        $mark = 'Road '.bin2hex(random_bytes(3));
        $id = $this->api('POST', 'records/ticket', ['values' => [
            'subject' => $mark, 'customer' => 1, 'status' => 'open', 'priority' => 'low', 'owner' => 'lena.abara',
        ]])['record']['id'];
        $this->open('/');
        $this->see('.bottom-bar a[aria-current=page]', 'Today');
        $this->press('Find or go to anything', '.find');
        $this->see('.finder input')->sendKeys($mark);
        $this->see('.finder button', $mark)->click();
        $this->see('h1', $mark);
        self::assertStringEndsWith("/records/ticket/{$id}", $this->browser->getCurrentURL());
        // A value where it stands; then the account, on the other leaf.
        $this->see('[aria-label="Change Priority"]')->click();
        $this->see('.floating [role=option]', 'Urgent')->click();
        $this->see('[data-field=priority]', 'Urgent');
        $this->press('History', '.leaf-switch button');
        $photo = sys_get_temp_dir()."/{$mark}.png";
        file_put_contents($photo, (string) base64_decode(
            'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', true,
        ));
        $this->browser->findElement(WebDriverBy::cssSelector('input[type=file]'))->sendKeys($photo);
        $this->see('textarea[aria-label=Comment]')->sendKeys('It leans to the left');
        $this->press('Comment');
        $this->see('.leaf.right', 'It leans to the left');
        $this->see('.leaf.right', "added the file {$mark}.png");
        $this->press('Files and guards');
        $this->see("img[alt=\"{$mark}.png\"]");
        $this->until(fn (): bool => $this->browser->executeScript(
            'return document.querySelector(`img[alt="${arguments[0]}"]`).naturalWidth', ["{$mark}.png"],
        ) === 1, 'for the picture to be shown');
        $small = $this->browser->executeScript(
            'return [...document.querySelectorAll(".bottom-bar a, .bottom-bar button, .leaf-switch button, .find")].filter((one) => '
            .'one.getBoundingClientRect().height < 44).length',
        );
        self::assertSame(0, $small, 'nothing to touch is smaller than a finger');
        $this->press('More', '.bottom-bar button');
        $this->see('.more-sheet a', 'Customers')->click();
        $this->see('h1', 'Customers');
        unlink($photo);
    }
}
