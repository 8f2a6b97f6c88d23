<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Moment;
use App\Models\Access\TokenScope;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class TokenInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => 'required|string|max:80', 'password' => 'required|string|max:1000', 'until' => ['nullable', new Moment],
            'scope' => ['nullable', Rule::enum(TokenScope::class)],
        ];
    }
}
