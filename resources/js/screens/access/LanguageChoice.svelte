<script lang="ts">
    import { Select } from 'flowbite-svelte';
    import { api, ask, said } from '../../api/client';
    import { languages, type LanguageCode } from '../../state/language.svelte';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';

    /* In which language one reads the application. */
    const items = [{ value: '', name: 'As my browser asks for' }, ...languages().map(({ code, name }) => ({ value: code, name }))];

    async function choose(event: Event) {
        const code = (event.currentTarget as HTMLSelectElement).value;
        try {
            await ask(api.PUT('/api/language', { body: { language: (code || null) as LanguageCode | null } }));
            // The words of a page are those it came with.
            location.reload();
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
</script>

<h2>Language</h2>
<p class="mt-1 mb-2 text-[13px] text-ink-2">
    Of the screens, of dates and figures, and of what the application says. The text of rules is English, and what your company wrote stays
    as it is.
</p>
<Select placeholder="" class="max-w-56" aria-label="Language" value={session.me?.language ?? ''} {items} onchange={choose} />
