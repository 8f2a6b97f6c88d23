<?php

declare(strict_types=1);

namespace App\Http\Access;

use Illuminate\Foundation\Http\FormRequest;

final class RoleInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['file' => 'required|array'] + ($this->isMethod('PUT') ? ['version' => 'required|integer'] : []);
    }

    /** @return array<array-key, mixed> as it came, for RoleFile to read */
    public function document(): array
    {
        return (array) $this->input('file');
    }
}
