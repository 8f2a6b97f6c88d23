<?php

declare(strict_types=1);

namespace App\Http\People;

use App\Http\PersonGiven;
use App\Models\Access\StoredRole;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class InviteInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => 'required|string|max:120', 'email' => 'required|email|max:190',
            'role' => ['required', 'bail', 'string', 'ascii', Rule::exists(StoredRole::class, 'name')],
            'team' => 'nullable|string|max:80', 'timeZone' => 'nullable|timezone', 'managerId' => ['nullable', new PersonGiven],
        ];
    }
}
