<a href="/" class="flex items-center gap-2 no-underline" aria-label="Lyrandis, all rigs">
  <svg width="24" height="24" viewBox="0 0 24 24" fill="none" aria-hidden="true">
    <path d="M6 2c7 4 7 16 0 20" stroke="var(--ink)" stroke-width="2" stroke-linecap="round" />
    <path d="M6 2v20" stroke="var(--red)" stroke-width="1.2" />
    <path d="M2 12h20" stroke="var(--ink)" stroke-width="1.4" />
  </svg>
  <span class="text-xl font-bold text-ink max-sm:sr-only">Lyrandis</span>
</a>
