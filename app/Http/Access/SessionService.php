<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Middleware\SpeaksTheirLanguage;
use App\Http\People\PreferencesResource;
use App\Models\People\Person;
use App\Store\Access\AccessEntries;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use VividLedger\Record\Value;
use VividLedger\Rights\Duty;
use VividLedger\Words\Words;

/** Lets somebody in, in a session, and says who it is. */
final readonly class SessionService
{
    public function __construct(private Company $company, private HouseClock $clock, private AccessEntries $entries,
        private SchemaStore $schemas, private Request $request)
    {
    }

    /** @param  string  $how  "password", "code" or "link", for the ledger */
    public function letIn(Request $request, Person $person, string $how): Me
    {
        Auth::guard('web')->login($person);
        $request->session()->regenerate();
        $this->entries->write('signed_in', $person->id, ['person' => $person->id, 'how' => $how]);

        return $this->me($person->refresh());
    }

    /** @throws DomainError for a script, which brings a token */
    public static function mustHaveSession(Request $request): void
    {
        if (! $request->hasSession()) {
            throw new DomainError(
                'no_session',
                Words::say('Only the application’s own pages sign in this way. A script brings a token: “Authorization: Bearer …”.'),
                RefusedFor::Unreadable,
            );
        }
    }

    public function me(Person $person): Me
    {
        return new Me(
            id: $person->id, handle: $person->handle, name: $person->name, email: $person->email, role: $person->role,
            company: $this->company->name(), timeZone: $this->company->zone()->getName(), now: Value::instantText($this->clock->now()),
            mayEditRecords: $person->mayWork(), mayEditRules: $person->may(Duty::WriteRules),
            mayDoAllTasks: $person->may(Duty::DoAllTasks), fileBytes: (int) config('limits.file_bytes'),
            hasMailRoom: config('ledger.mail.room') === true && $person->may(Duty::SeeMailRoom),
            hasSecondFactor: $person->second_factor !== null, recoveryCodes: count($person->recovery_codes ?? []),
            roleLabel: $person->rights()->label, duties: array_column($person->rights()->duties, 'value'),
            seesAll: $person->rights()->readsEverything($this->schemas->schema()), language: $person->language,
            spoken: SpeaksTheirLanguage::of($this->request, $person), preferences: PreferencesResource::of($person),
        );
    }
}
