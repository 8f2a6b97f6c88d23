<?php

declare(strict_types=1);

namespace App\Http\Input;

use Illuminate\Foundation\Http\FormRequest;

final class TokenInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['name' => 'required|string|max:80'];
    }
}
