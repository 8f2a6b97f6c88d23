<?php

declare(strict_types=1);

namespace App\Store\People;

use App\Models\Access\StoredRole;
use App\Models\People\Person;
use App\Store\DomainError;
use App\Store\Setup\Company;
use Illuminate\Database\Connection;
use VividLedger\Rights\Role;
use VividLedger\Words\Words;

/**
 * People from a list (CSV): a line each, with a name, an address, and what else is known. First it is only read, and every problem told
 * by line and column; then all of them are invited, or nobody.
 */
final readonly class PeopleFile
{
    private const MOST = 1000;

    /** What a column is called, in the ways that lists call it. */
    private const COLUMNS = [
        'name' => ['name', 'full name'], 'email' => ['email', 'e-mail', 'e-mail address', 'email address', 'address'],
        'role' => ['role'], 'team' => ['team', 'department'], 'manager' => ['manager', 'manager email', 'reports to'],
        'timeZone' => ['time zone', 'timezone', 'zone'],
    ];

    public function __construct(private Connection $db, private Onboarding $joining, private Company $company)
    {
    }

    /**
     * @return array{people: list<array<string, string>>, problems: list<array{at: string, code: string, message: string}>} who would be
     *     invited, by member, and what is wrong at "/line/column"
     *
     * @throws DomainError when it is no list at all
     */
    public function read(string $text): array
    {
        [$heads, $lines] = self::table($text);
        $known = array_fill_keys(array_map(mb_strtolower(...), Person::query()->pluck('email')->all()), true);
        $people = $problems = [];
        $roles = self::roles();
        $wrong = static function (int $line, string $column, string $message) use (&$problems): void {
            $problems[] = ['at' => "/{$line}/{$column}", 'code' => 'invalid_value', 'message' => Words::say(
                'Line {line}: {message}',
                line: $line,
                message: $message,
            )];
        };
        foreach ($lines as $line => $cells) {
            $one = [];
            foreach ($heads as $column => $index) {
                $one[$column] = trim((string) preg_replace('/\s+/u', ' ', $cells[$index] ?? ''));
            }
            $email = mb_strtolower($one['email'] ?? '');
            if (($one['name'] ?? '') === '' || mb_strlen($one['name']) > 120) {
                $wrong($line, 'name', ($one['name'] ?? '') === ''
                    ? Words::say('a name is missing.')
                    : Words::say('a name has at most 120 characters.'));
            }
            if (filter_var($email, FILTER_VALIDATE_EMAIL, FILTER_FLAG_EMAIL_UNICODE) === false) {
                $wrong($line, 'email', Words::say('‘{email}’ is no e-mail address.', email: $one['email']));
            } elseif (isset($known[$email])) {
                $wrong($line, 'email', Words::say('somebody has the address {email} already.', email: $email));
            }
            $known[$email] = true;
            if (($one['role'] ?? '') !== '' && self::role($one['role'], $roles) === null) {
                $all = implode(', ', array_map(static fn (Role $role): string => $role->label, $roles));
                $wrong($line, 'role', Words::say('there is no role ‘{role}’. There are {all}.', role: $one['role'], all: $all));
            }
            if (($one['timeZone'] ?? '') !== '' && ! in_array($one['timeZone'], \DateTimeZone::listIdentifiers(), true)) {
                $wrong($line, 'timeZone', Words::say('‘{timeZone}’ is no time zone.', timeZone: $one['timeZone']));
            }
            $people[$line] = $one;
        }
        foreach ($people as $line => $one) {
            if (($one['manager'] ?? '') !== '' && ! isset($known[mb_strtolower($one['manager'])])) {
                $wrong($line, 'manager', Words::say('nobody has the address {manager}, here or in the list.', manager: $one['manager']));
            }
        }

        return ['people' => array_values($people), 'problems' => $problems];
    }

    /**
     * @return list<int> ids of those who were written down
     *
     * @throws DomainError with every problem, when there is one
     */
    public function invite(string $text, int $by): array
    {
        return $this->db->transaction(function () use ($text, $by): array {
            ['people' => $people, 'problems' => $problems] = $this->read($text);
            if ($problems !== []) {
                throw new DomainError('invalid_values', $problems[0]['message'], problems: $problems);
            }
            $ids = [];
            $roles = self::roles();
            foreach ($people as $one) {
                $ids[mb_strtolower($one['email'])] = $this->joining->invite([
                    'name' => $one['name'], 'email' => $one['email'],
                    'role' => self::role($one['role'] ?? '', $roles) ?? 'member',
                    'team' => mb_substr($one['team'] ?? '', 0, 80),
                    'timeZone' => ($one['timeZone'] ?? '') === '' ? $this->company->zone()->getName() : $one['timeZone'],
                    'managerId' => null,
                ], $by)->id;
            }
            // Managers last: somebody may stand above their own manager in the list.
            $all = $ids + array_change_key_case(Person::query()->pluck('id', 'email')->all());
            foreach (array_filter($people, static fn (array $one): bool => ($one['manager'] ?? '') !== '') as $one) {
                $id = $ids[mb_strtolower($one['email'])];
                $manager = (int) $all[mb_strtolower($one['manager'])];
                PeopleRepository::mustBeNoRing($id, $manager);
                Person::query()->whereKey($id)->update(['manager_id' => $manager]);
            }

            return array_values($ids);
        });
    }

    /**
     * @return array{array<string, int>, array<int, list<string>>} where each column is, and the cells by the number of their line
     *
     * @throws DomainError
     */
    private static function table(string $text): array
    {
        $text = (string) preg_replace('/^\xEF\xBB\xBF/', '', $text);
        if (! mb_check_encoding($text, 'UTF-8') || trim($text) === '') {
            throw DomainError::at('/text', trim($text) === '' ? Words::say('The list is empty.')
                : Words::say('The list is no text in UTF-8.'));
        }
        $first = strtok($text, "\n") ?: '';
        $counts = array_map(static fn (string $sign): int => substr_count($first, $sign), [',' => ',', ';' => ';', "\t" => "\t"]);
        arsort($counts);
        $file = fopen('php://temp', 'r+b') ?: throw new \RuntimeException('There is no room for the list.');
        fwrite($file, $text);
        rewind($file);
        $heads = [];
        $lines = [];
        for ($line = 1; ($cells = fgetcsv($file, null, (string) array_key_first($counts), '"', '')) !== false; $line++) {
            if ($cells === [null]) {
                continue;
            }
            if ($heads === []) {
                $heads = self::heads(array_map(strval(...), $cells));

                continue;
            }
            $lines[$line] = array_map(strval(...), $cells);
        }
        if (count($lines) === 0 || count($lines) > self::MOST) {
            throw DomainError::at(
                '/text',
                $lines === []
                    ? Words::say('There is nobody in the list.')
                    : Words::say('At most {most} people at a time.', most: self::MOST),
            );
        }

        return [$heads, $lines];
    }

    /**
     * @param  array<string>  $cells  of the first line
     * @return array<string, int>
     *
     * @throws DomainError
     */
    private static function heads(array $cells): array
    {
        $heads = [];
        foreach (array_values($cells) as $index => $cell) {
            foreach (self::COLUMNS as $column => $names) {
                if (in_array(mb_strtolower(trim($cell)), $names, true)) {
                    $heads[$column] ??= $index;
                }
            }
        }

        return isset($heads['name'], $heads['email']) ? $heads
            : throw DomainError::at(
                '/text',
                Words::say('The first line names the columns: name and email, and if you like role, team, manager, time zone.'),
            );
    }

    /** @return list<Role> */
    private static function roles(): array
    {
        return array_values(StoredRole::query()->orderBy('position')->get()->map(static fn (StoredRole $role): Role => $role->role())
            ->all());
    }

    /**
     * @param  list<Role>  $roles
     * @return ?string the name of the role that is called so
     */
    private static function role(string $said, array $roles): ?string
    {
        foreach ($roles as $role) {
            if (in_array(mb_strtolower($said), [$role->name, mb_strtolower($role->label)], true)) {
                return $role->name;
            }
        }

        return null;
    }
}
