import '@fontsource-variable/atkinson-hyperlegible-next/index.css'
import '@fontsource-variable/public-sans/wght.css'
import '@mantine/core/styles/baseline.css'
import '@mantine/core/styles/default-css-variables.css'
import '@mantine/core/styles/global.css'
import '@mantine/core/styles/UnstyledButton.css'
import '@mantine/core/styles/Button.css'
import '@mantine/core/styles/ActionIcon.css'
import '@mantine/core/styles/Input.css'
import '@mantine/core/styles/InlineInput.css'
import '@mantine/core/styles/Checkbox.css'
import '@mantine/core/styles/Loader.css'
import '@mantine/core/styles/Overlay.css'
import '@mantine/core/styles/ModalBase.css'
import '@mantine/core/styles/Modal.css'
import '@mantine/core/styles/Paper.css'
import '@mantine/core/styles/CloseButton.css'
import '@mantine/core/styles/Group.css'
import '@mantine/core/styles/Text.css'
import '@mantine/core/styles/Anchor.css'
import '@mantine/core/styles/Kbd.css'
import './app/tokens.css'
import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, RouterProvider } from 'react-router'
import { routes } from './app/routes'
import { Themed } from './app/Themed'
import './save/acts'
import { carryOn, client } from './save/client'
import { carryOnDocuments } from './save/documents'

const router = createBrowserRouter(routes)

void carryOn()
void carryOnDocuments()
// Brings the screens back on a reload without the server, where the browser allows it.
if (import.meta.env.PROD) void navigator.serviceWorker?.register('/sw.js').catch(() => undefined)

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <Themed>
        {/* What is opened, opens at once: a click meant for what is on the screen must not find another state behind it. */}
        <RouterProvider router={router} useTransitions={false} />
      </Themed>
    </QueryClientProvider>
  </StrictMode>,
)
