import { BrowserRouter, Navigate, Route, Routes, useLocation, useParams } from 'react-router';
import { SignedIn } from '../features/people/index.ts';
import { NotHere, SiteFrame } from '../features/frame/index.ts';
import { StartPage } from '../features/sites/index.ts';
import { Guarded } from '../ui/Guarded.tsx';

export function App() {
  return (
    <BrowserRouter>
      <Everything />
    </BrowserRouter>
  );
}

function Everything() {
  const { pathname } = useLocation();
  return (
    <Guarded at={pathname}>
      <SignedIn>
        <Routes>
          <Route path="/" element={<StartPage />} />
          <Route path="/sites/:siteId" element={<ToSurvey />} />
          <Route path="/sites/:siteId/:station" element={<SiteFrame />} />
          <Route path="*" element={<Nowhere />} />
        </Routes>
      </SignedIn>
    </Guarded>
  );
}

function Nowhere() {
  const { pathname } = useLocation();
  return <NotHere what={`There is nothing at ${pathname}.`} to="/" way="To the sites" />;
}

function ToSurvey() {
  const { siteId } = useParams();
  return <Navigate to={`/sites/${siteId}/survey`} replace />;
}
