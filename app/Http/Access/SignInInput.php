<?php

declare(strict_types=1);

namespace App\Http\Access;

use Illuminate\Foundation\Http\FormRequest;

final class SignInInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['email' => 'required|string|max:190', 'password' => 'required|string|max:200', 'code' => 'nullable|string|max:40'];
    }
}
